import { MatIconTestingModule } from '@angular/material/icon/testing';
import { shownDialog, turns, until } from '../testing/until';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { SOME_ID } from '../testing/records';
import { FakeQueue } from '../testing/fake-queue';
import { Session } from '../data/session';
import { CommandQueue } from '../data/command-queue';
import { firstValueFrom } from 'rxjs';
import { Frame } from './frame';
import { JoinPage } from './join';
import { SignInForm } from './sign-in-form';
import { signedIn } from './signed-in.guard';
import { ThemeChoice } from './theme';
import { Parts } from '../ui/parts';

@Component({ template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class Blank {}

const SESSION = {
  user: { id: SOME_ID, name: 'Wren', email: 'wren@clinic.example', role: 'lead' },
  clinic: { id: SOME_ID, name: 'Clinic' },
  secondFactorMissing: false,
  passwordLink: null,
};

describe('shell', () => {
  let http: HttpTestingController;
  let queue: FakeQueue;
  beforeEach(() => {
    queue = new FakeQueue();
    const routes = [
      { path: 'sign-in', component: Blank },
      { path: 'inside/:id', component: Blank, canMatch: [signedIn] },
      { path: 'account', component: Blank, canMatch: [signedIn] },
    ];
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter(routes), { provide: CommandQueue, useValue: queue }],
    });
    http = TestBed.inject(HttpTestingController);
  });

  describe('the guard', () => {
    const go = async (status: number, over: object = {}) => {
      const arrived = TestBed.inject(Router).navigateByUrl('/inside/7?x=1');
      // The router asks its guards in a later turn of the event loop.
      await turns();
      http.expectOne('/api/session').flush(status === 200 ? { ...SESSION, ...over } : {}, { status, statusText: 'x' });
      await arrived;
      return TestBed.inject(Router).url;
    };
    it('lets in who is signed in', async () => expect(await go(200)).toBe('/inside/7?x=1'));
    it('sends others to the door and remembers where they were going', async () =>
      expect(await go(401)).toBe('/sign-in?to=%2Finside%2F7%3Fx%3D1'));
    it('leads whoever has to set up a second factor to where that is done', async () =>
      expect(await go(200, { secondFactorMissing: true })).toBe('/account'));
  });

  describe('a password that was set with a link', () => {
    it('is told to the person until they confirm it', async () => {
      const checked = firstValueFrom(TestBed.inject(Session).check());
      const passwordLink = { usedAt: '2026-11-30T09:05:00.000Z', madeBy: 'Rook' };
      http.expectOne('/api/session').flush({ ...SESSION, passwordLink });
      await checked;
      const fixture = TestBed.createComponent(Frame);
      fixture.componentRef.setInput('heading', 'Caseload');
      await fixture.whenStable();
      const page = fixture.nativeElement as HTMLElement;
      expect(page.textContent).toContain('made by Rook. If this was not you, tell your lead now.');
      [...page.querySelectorAll('button')].find(({ textContent }) => textContent === 'It was me')!.click();
      (await until(() => http.match('/api/account/password-link-seen')[0])).flush(SESSION);
      await fixture.whenStable();
      expect(page.textContent).not.toContain('with a link');
    });
  });

  describe('a link to a new password that somebody else has seen', () => {
    it('asks for the second factor of the person, and sends it along', async () => {
      const fixture = TestBed.createComponent(JoinPage);
      const link = {
        kind: 'password',
        clinic: 'C',
        name: 'Rook',
        email: 'r@clinic.example',
        role: 'lead',
        expiresAt: '2026-12-09T10:00:00.000Z',
      };
      (await until(() => http.match('/api/joining/opening')[0])).flush({ ...link, needsFactor: true });
      await fixture.whenStable();
      const page = fixture.nativeElement as HTMLElement;
      const type = (name: string, text: string) => {
        const field = page.querySelector<HTMLInputElement>(`input[name="${name}"]`)!;
        field.value = text;
        field.dispatchEvent(new Event('input'));
      };
      for (const field of [...page.querySelectorAll('input')]) type(field.name, field.name === 'code' ? '12' : 'harbour-lichen-teaspoon-9');
      page.querySelector('form')!.dispatchEvent(new Event('submit'));
      await fixture.whenStable();
      expect(page.textContent).toContain('Enter the six digits, or a recovery code');
      http.expectNone('/api/joining');
      type('code', '123 456');
      page.querySelector('form')!.dispatchEvent(new Event('submit'));
      const sent = await until(() => http.match('/api/joining')[0]);
      expect(sent.request.body).toEqual(jasmine.objectContaining({ code: '123 456', password: 'harbour-lichen-teaspoon-9' }));
    });
  });

  describe('the sign-in form', () => {
    const open = async () => {
      const fixture = TestBed.createComponent(SignInForm);
      let entered = 0;
      fixture.componentInstance.signedIn.subscribe(() => (entered += 1));
      await fixture.whenStable();
      const page = fixture.nativeElement as HTMLElement;
      const fill = (type: string, value: string) => {
        const field = page.querySelector<HTMLInputElement>(`input[type=${type}]`)!;
        field.value = value;
        field.dispatchEvent(new Event('input'));
      };
      const submit = async () => {
        page.querySelector('form')!.dispatchEvent(new Event('submit'));
        await fixture.whenStable();
      };
      return { fixture, page, fill, submit, entered: () => entered };
    };

    it('asks for both before it sends anything', async () => {
      const { page, fill, submit } = await open();
      fill('email', 'not an address');
      await submit();
      http.expectNone('/api/session');
      expect(page.textContent).toContain('Type your password');
      expect(page.textContent).toContain('Type your e-mail address');
    });

    it('shows why it was refused and lets one try again', async () => {
      const { fixture, page, fill, submit, entered } = await open();
      fill('email', 'wren@clinic.example');
      fill('password', 'wrong');
      await submit();
      (await until(() => http.match('/api/session')[0])).flush(
        { detail: 'E-mail or password is wrong.' },
        { status: 401, statusText: 'x' },
      );
      await fixture.whenStable();
      expect(page.querySelector('[role=alert]')!.textContent).toBe('E-mail or password is wrong.');
      fill('password', 'right');
      await submit();
      (await until(() => http.match('/api/session')[0])).flush(SESSION);
      expect(entered()).toBe(1);
    });
  });

  describe('what a role does not go as far as', () => {
    const as = async (role: string) => {
      const fixture = TestBed.createComponent(Frame);
      fixture.componentRef.setInput('heading', 'Ilka Marsh');
      fixture.componentRef.setInput('act', 'measure');
      TestBed.inject(Session).check().subscribe();
      http.expectOne('/api/session').flush({ ...SESSION, user: { ...SESSION.user, role } });
      // What is known of accounts is fetched first.
      await until(() => TestBed.inject(Session).current());
      await fixture.whenStable();
      return fixture.nativeElement as HTMLElement;
    };

    it('is said above the page, which can be read and does not answer', async () => {
      const page = await as('reader');
      expect(page.querySelector('.only-read')?.textContent).toContain(
        'You are a reader here; only the lead or an examiner may measure and plan.',
      );
      expect(page.querySelector('fieldset')?.disabled).toBeTrue();
    });

    it('is not in the way of whoever may', async () => {
      const page = await as('examiner');
      expect(page.querySelector('.only-read')).toBeNull();
      expect(page.querySelector('fieldset')?.disabled).toBeFalse();
    });
  });

  describe('the frame', () => {
    it('shows what waits, and throws nothing away at sign-out unless told to', async () => {
      queue.waiting.set(1);
      const fixture = TestBed.createComponent(Frame);
      fixture.componentRef.setInput('heading', 'Ilka Marsh');
      await fixture.whenStable();
      const page = fixture.nativeElement as HTMLElement;
      expect(page.querySelector('.status')!.textContent).toContain('1 waiting to be saved');
      page.querySelector<HTMLButtonElement>('.you')!.click();
      await fixture.whenStable();
      [...document.querySelectorAll<HTMLButtonElement>('[mat-menu-item]')].find((item) => item.textContent.trim() === 'Sign out')!.click();
      const dialog = await shownDialog();
      expect(dialog.textContent).toContain('1 entry is not saved yet');
      expect([...dialog.querySelectorAll('button')].map((button) => button.textContent!.trim())).toEqual([
        'Stay',
        'Discard them and sign out',
        'Keep them and sign out',
      ]);
      http.expectNone('/api/session');
      dialog.querySelector<HTMLButtonElement>('button')!.click();
      await until(() => !document.querySelector('mat-dialog-container'));
      http.expectNone('/api/session');
    });

    it('tells that a part of the program could not be fetched, until that was seen', async () => {
      const parts = TestBed.inject(Parts);
      await parts.fetch(() => Promise.reject(new Error('offline')));
      const fixture = TestBed.createComponent(Frame);
      fixture.componentRef.setInput('heading', 'Ilka Marsh');
      await fixture.whenStable();
      const status = (fixture.nativeElement as HTMLElement).querySelector('.status')!;
      expect(status.textContent).toContain('cannot be fetched now. Nothing is lost');
      status.querySelector<HTMLButtonElement>('.dismiss')!.click();
      await fixture.whenStable();
      expect(status.textContent).not.toContain('cannot be fetched');
    });

    it('marks the step of the visit only inside a visit', async () => {
      const fixture = TestBed.createComponent(Frame);
      fixture.componentRef.setInput('heading', 'Caseload');
      await fixture.whenStable();
      const page = fixture.nativeElement as HTMLElement;
      expect(page.querySelector('nav')).toBeNull();
      fixture.componentRef.setInput('visitId', SOME_ID);
      await fixture.whenStable();
      expect([...page.querySelectorAll('nav a')].map((a) => a.textContent)).toEqual([
        'Prepare',
        'Screen',
        'Measure',
        'Judge',
        'Progress',
        'Decide',
        'Report',
      ]);
    });
  });

  it('the theme goes round and is kept on this device', async () => {
    localStorage.removeItem('dial-gauge.theme');
    const choice = TestBed.inject(ThemeChoice);
    for (const theme of ['light', 'dark'] as const) {
      choice.next();
      TestBed.tick();
      expect(document.documentElement.getAttribute('data-theme')).toBe(theme);
      expect(localStorage.getItem('dial-gauge.theme')).toBe(theme);
    }
    choice.next();
    TestBed.tick();
    expect(document.documentElement.hasAttribute('data-theme')).toBeFalse();
  });
});
