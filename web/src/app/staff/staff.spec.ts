import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { StaffView } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { SOME_ID } from '../testing/records';
import { shownDialog, until } from '../testing/until';
import { StaffPage } from './staff';

const OTHER = '22222222-2222-4333-8444-555555555555';
const person = (over: object) => ({
  id: SOME_ID,
  name: 'Wren Calloway',
  email: 'wren@clinic.example',
  role: 'lead' as const,
  secondFactor: false,
  seenAt: null,
  endedAt: null,
  here: true,
  ...over,
});
const VIEW: StaffView = {
  people: [person({}), person({ id: OTHER, name: 'Rook Ansty', email: 'rook@clinic.example', role: 'examiner', here: false })],
  links: [],
  secondFactorSince: null,
};

describe('StaffPage', () => {
  let http: HttpTestingController;
  let page: HTMLElement;
  const open = async (view: StaffView = VIEW) => {
    const fixture = TestBed.createComponent(StaffPage);
    http.expectOne('/api/staff').flush(view);
    await fixture.whenStable();
    page = fixture.nativeElement as HTMLElement;
    return fixture;
  };
  const button = (name: string | RegExp) =>
    [...page.querySelectorAll<HTMLButtonElement>('button')].find((one) => {
      const said = one.getAttribute('aria-label') ?? one.textContent.trim();
      return typeof name === 'string' ? said === name : name.test(said);
    })!;
  const type = (name: string, text: string) => {
    const field = page.querySelector<HTMLInputElement>(`input[name="${name}"]`)!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
  };

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    http = TestBed.inject(HttpTestingController);
  });
  afterEach(() => http.verify());

  it('changes the role of others, and offers nobody to change their own', async () => {
    const fixture = await open();
    const rows = [...page.querySelectorAll('.people li')];
    expect(rows[0]!.textContent).toContain('lead · you');
    expect(rows[0]!.querySelector('select, button')).toBeNull();
    const select = rows[1]!.querySelector('select')!;
    select.value = 'reader';
    select.dispatchEvent(new Event('change'));
    const sent = http.expectOne(`/api/staff/${OTHER}/role`);
    expect(sent.request.body).toEqual({ role: 'reader' });
    // Refused: what stands there is what is so.
    sent.flush({ type: '', title: '', status: 409, detail: 'Changed meanwhile.' }, { status: 409, statusText: 'x' });
    await fixture.whenStable();
    expect(select.value).toBe('examiner');
    expect(page.querySelector('[role=alert]')?.textContent).toContain('Changed meanwhile.');
  });

  it('asks a second factor of everybody, or leaves it to each, and says who has none', async () => {
    const fixture = await open();
    expect(page.textContent).toContain('Left to each. 2 people have none.');
    button('Ask it of everybody').click();
    const sent = http.expectOne('/api/second-factor-rule');
    expect(sent.request.body).toEqual({ asked: true });
    const people = [
      person({ secondFactor: true }),
      VIEW.people[1]!,
      person({ id: SOME_ID.replace('7', '8'), endedAt: '2026-11-01T10:00:00.000Z' }),
    ];
    sent.flush({ ...VIEW, people, secondFactorSince: '2026-11-27T10:00:00.000Z' });
    await fixture.whenStable();
    expect(page.textContent).toContain('One person has none.');
    button('Leave it to each').click();
    const back = http.expectOne('/api/second-factor-rule');
    expect(back.request.body).toEqual({ asked: false });
    back.flush({ type: '', title: '', status: 409, detail: 'Changed meanwhile.' }, { status: 409, statusText: 'x' });
    await fixture.whenStable();
    expect(page.querySelector('[role=alert]')?.textContent).toContain('Changed meanwhile.');
  });

  it('tells a link once, and keeps half an invitation over a reload', async () => {
    const fixture = await open();
    type('name', 'Fenn Corrie');
    type('email', 'fenn');
    button('Make a link').click();
    await fixture.whenStable();
    expect(page.querySelector('.wrong')?.textContent).toContain('Type their e-mail address');
    type('email', 'fenn@clinic.example');
    TestBed.tick();
    fixture.destroy();
    const again = await open();
    expect(page.querySelector<HTMLInputElement>('input[name=email]')?.value).toBe('fenn@clinic.example');
    button('Make a link').click();
    const sent = http.expectOne('/api/invitations');
    expect(sent.request.body).toEqual(jasmine.objectContaining({ name: 'Fenn Corrie', email: 'fenn@clinic.example', role: 'examiner' }));
    sent.flush({ token: 'secret', mailedTo: null, staff: VIEW });
    await again.whenStable();
    expect(page.querySelector('.made .link')?.textContent).toContain('/join#secret');
    button('Done').click();
    await again.whenStable();
    expect(page.textContent).not.toContain('secret');
    expect(page.querySelector<HTMLInputElement>('input[name=name]')?.value).toBe('');
  });

  it('shows no password link that went to the person by mail', async () => {
    const fixture = await open();
    button(/password/i).click();
    http.expectOne(({ url }) => url.endsWith('/password-link')).flush({ token: null, mailedTo: 'rook@clinic.example', staff: VIEW });
    await fixture.whenStable();
    expect(page.querySelector('.made')).toBeNull();
    expect(page.textContent).toContain('A link to choose a new password was sent to rook@clinic.example.');
  });

  it('shows what the server refuses at its field', async () => {
    const fixture = await open();
    type('name', 'Rook');
    type('email', 'rook@clinic.example');
    button('Make a link').click();
    const refusal = { type: '', title: '', status: 422, detail: 'No.', errors: [{ path: 'email', message: 'has an account already' }] };
    http.expectOne('/api/invitations').flush(refusal, { status: 422, statusText: 'x' });
    await fixture.whenStable();
    expect(page.querySelector('.wrong')?.textContent).toContain('has an account already');
    expect(page.querySelector('input[name=email]')?.getAttribute('aria-invalid')).toBe('true');
  });

  it('asks before an account is closed', async () => {
    const fixture = await open();
    button('Close account: Rook Ansty').click();
    await shownDialog();
    const dialog = document.querySelector('mat-dialog-container')!;
    expect(dialog.textContent).toContain('stays under their name');
    [...dialog.querySelectorAll('button')].find((one) => one.textContent.includes('Close the account'))!.click();
    let sent: ReturnType<HttpTestingController['match']> = [];
    await until(() => (sent = http.match(`/api/staff/${OTHER}/ending`)).length === 1);
    sent[0]!.flush({ ...VIEW, people: [VIEW.people[0]!, { ...VIEW.people[1]!, endedAt: '2026-11-27T10:00:00.000Z' }] });
    await fixture.whenStable();
    expect(page.textContent).toContain('The account of Rook Ansty is closed.');
    expect(button('Open again')).toBeDefined();
  });
});
