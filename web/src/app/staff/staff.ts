import { ChangeDetectionStrategy, Component, DOCUMENT, effect, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { ROLES, STAFF, type MadeLink, type Role, type StaffMember, type StaffView } from '@dial-gauge/contract';
import { filter, type Observable } from 'rxjs';
import { fullMoment } from '../caseload/words';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { describeFailure, toFailure, type Failure } from '../data/problem';
import { DoorField } from '../shell/door-field';
import { DoorForm, looksLikeAddress } from '../shell/door-form';
import { Frame } from '../shell/frame';
import type { ConfirmQuestion } from '../ui/confirm.dialog';
import { LazyDialog } from '../ui/lazy-dialog';
import { Said } from '../ui/said';
import { ROLE_WORDS } from './words';

interface HalfInvited {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
}
const DRAFT = 'invitation';
const isHalfInvited = (value: unknown): value is HalfInvited =>
  typeof value === 'object' &&
  value !== null &&
  'name' in value &&
  'email' in value &&
  'role' in value &&
  ROLES.includes(value.role as Role);

/** Who works in the clinic: inviting, what each may do, closing accounts. For the lead. */
@Component({
  selector: 'dg-staff',
  imports: [DoorField, Frame, MatButtonModule, Said],
  templateUrl: './staff.html',
  styleUrl: './staff.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StaffPage {
  private readonly api = inject(Api);
  private readonly dialogs = inject(LazyDialog);
  private readonly drafts = inject(Drafts);
  private readonly page = inject(DOCUMENT);
  protected readonly roles = ROLES;
  protected readonly roleWords = ROLE_WORDS;
  protected readonly moment = fullMoment;
  protected readonly view = signal<StaffView | null>(null);
  protected readonly failure = signal('');
  protected readonly busy = signal(false);
  protected readonly done = signal('');
  protected readonly refusal = signal<Failure | null>(null);
  /** A link that was just made: it is told once. */
  protected readonly made = signal<{ readonly name: string; readonly address: string } | null>(null);
  protected readonly copied = signal(false);

  private readonly left = this.drafts.read(DRAFT, isHalfInvited);
  private id: string = crypto.randomUUID();
  protected readonly name = signal(this.left?.name ?? '');
  protected readonly email = signal(this.left?.email ?? '');
  protected readonly role = signal<Role>(this.left?.role ?? 'examiner');
  protected readonly form = new DoorForm({
    name: () => (this.name().trim() ? '' : 'Type their name'),
    email: () => (looksLikeAddress(this.email()) ? '' : 'Type their e-mail address, as name@clinic.example'),
  });

  constructor() {
    this.load();
    effect(() => {
      const half: HalfInvited = { name: this.name(), email: this.email(), role: this.role() };
      if (half.name || half.email) this.drafts.keep(DRAFT, half);
    });
  }

  protected load(): void {
    this.failure.set('');
    this.api.call(STAFF.staff).subscribe({
      next: (view) => this.view.set(view),
      error: (error: unknown) => this.failure.set(describeFailure(toFailure(error))),
    });
  }

  protected invite(): void {
    const body = { id: this.id, name: this.name().trim(), email: this.email().trim(), role: this.role() };
    this.form.send(
      () => this.api.call(STAFF.invite, { body }),
      (made) => {
        this.linkMade(made, body.name);
        this.id = crypto.randomUUID();
        this.name.set('');
        this.email.set('');
        this.form.tried.set(false);
        this.drafts.drop(DRAFT);
      },
    );
  }

  protected passwordLink(person: StaffMember): void {
    this.send(this.api.call(STAFF.resetPassword, { id: person.id, body: { id: crypto.randomUUID() } }), (made) =>
      this.linkMade(made, person.name),
    );
  }

  protected setRole(person: StaffMember, event: Event): void {
    const select = event.target as HTMLSelectElement;
    const role = select.value as Role;
    this.send(
      this.api.call(STAFF.setRole, { id: person.id, body: { role } }),
      (view) => this.show(view, `${person.name} is ${role} now, and signs in again.`),
      () => (select.value = person.role),
    );
  }

  protected end(person: StaffMember): void {
    this.ask({
      title: `Close the account of ${person.name}`,
      about:
        'They are signed out everywhere at once and sign in no more. What they measured and signed stays under their name. It can be opened again.',
      agree: 'Close the account',
    }).subscribe(() =>
      this.send(this.api.call(STAFF.endAccount, { id: person.id, body: {} }), (view) =>
        this.show(view, `The account of ${person.name} is closed.`),
      ),
    );
  }

  protected reopen(person: StaffMember): void {
    this.send(this.api.call(STAFF.reopenAccount, { id: person.id, body: {} }), (view) =>
      this.show(view, `${person.name} may sign in again.`),
    );
  }

  protected dropFactor(person: StaffMember): void {
    this.ask({
      title: `Take the second factor off, ${person.name}`,
      about:
        'Only when their authenticator and their codes are lost, and you know that it is they who ask. They are signed out everywhere.',
      agree: 'Take it off',
    }).subscribe(() =>
      this.send(this.api.call(STAFF.dropSecondFactor, { id: person.id, body: {} }), (view) =>
        this.show(view, `${person.name} signs in with the password alone.`),
      ),
    );
  }

  /** "2 people have none." */
  protected without({ people }: StaffView): string {
    const count = people.filter(({ endedAt, secondFactor }) => endedAt === null && !secondFactor).length;
    if (count === 0) return 'Everybody has one.';
    return count === 1 ? 'One person has none.' : `${count} people have none.`;
  }

  protected askFactor(asked: boolean): void {
    this.send(this.api.call(STAFF.askSecondFactor, { body: { asked } }), (view) =>
      this.show(
        view,
        asked ? 'Whoever signs in from now on has a second factor, or sets it up first.' : 'A second factor is left to each.',
      ),
    );
  }

  protected withdraw(id: string): void {
    this.send(this.api.call(STAFF.withdrawLink, { id }), (view) => this.show(view, 'The link opens nothing any more.'));
  }

  protected async copy(address: string): Promise<void> {
    await navigator.clipboard.writeText(address);
    this.copied.set(true);
  }

  private linkMade({ token, mailedTo, staff }: MadeLink, name: string): void {
    this.show(staff, mailedTo === null ? '' : `A link to choose a new password was sent to ${mailedTo}.`);
    if (token === null) return;
    this.copied.set(false);
    this.made.set({ name, address: `${this.page.location.origin}/join#${token}` });
  }

  private show(view: StaffView, done: string): void {
    this.view.set(view);
    this.done.set(done);
  }

  private ask(data: ConfirmQuestion): Observable<unknown> {
    return this.dialogs
      .open<boolean>(() => import('../ui/confirm.dialog').then((m) => m.ConfirmDialog), { width: '460px', data })
      .pipe(filter((yes) => yes === true));
  }

  private send<T>(asked: Observable<T>, then: (answer: T) => void, refused?: () => void): void {
    this.busy.set(true);
    this.done.set('');
    this.refusal.set(null);
    asked.subscribe({
      next: (answer) => {
        this.busy.set(false);
        then(answer);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.refusal.set(toFailure(error));
        refused?.();
      },
    });
  }
}
