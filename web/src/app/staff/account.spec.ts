import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import { problemType, type AccountView } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { Session } from '../data/session';
import { SOME_ID } from '../testing/records';
import { until } from '../testing/until';
import { AccountPage } from './account';

const VIEW: AccountView = { name: 'Wren', email: 'wren@clinic.example', role: 'lead', passwordSince: null, secondFactor: null };
const WITH: AccountView = { ...VIEW, secondFactor: { since: '2026-11-27T10:00:00.000Z', recoveryCodesLeft: 3 } };

describe('AccountPage', () => {
  let http: HttpTestingController;
  let page: HTMLElement;
  const open = async (view: AccountView) => {
    const fixture = TestBed.createComponent(AccountPage);
    http.expectOne('/api/account').flush(view);
    await fixture.whenStable();
    http.expectOne('/api/sessions').flush([]);
    page = fixture.nativeElement as HTMLElement;
    return fixture;
  };
  const press = (name: string) =>
    [...page.querySelectorAll<HTMLButtonElement>('button')].find((one) => one.textContent.trim() === name)!.click();
  const type = (name: string, text: string) => {
    const field = page.querySelector<HTMLInputElement>(`input[name="${name}"]`)!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
  };

  beforeEach(() => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    http = TestBed.inject(HttpTestingController);
  });
  afterEach(() => http.verify());

  it('names what a password wants before it is sent, and what the server says of it', async () => {
    const fixture = await open(VIEW);
    type('oldPassword', 'before');
    type('newPassword', 'short');
    press('Change the password');
    await fixture.whenStable();
    expect(page.textContent).toContain('Has 5 characters');
    type('newPassword', 'long-enough-but-known');
    press('Change the password');
    const refusal = { type: '', title: '', status: 422, detail: 'No.', errors: [{ path: 'next', message: 'is too easy to guess' }] };
    http.expectOne('/api/account/password').flush(refusal, { status: 422, statusText: 'x' });
    await fixture.whenStable();
    expect(page.querySelector('.wrong')?.textContent).toContain('is too easy to guess');
    // Nothing that was typed is lost.
    expect(page.querySelector<HTMLInputElement>('input[name=oldPassword]')?.value).toBe('before');
    press('Change the password');
    const sent = http.expectOne('/api/account/password');
    expect(sent.request.body).toEqual({ password: 'before', next: 'long-enough-but-known' });
    sent.flush({ ...VIEW, passwordSince: '2026-11-27T10:00:00.000Z' });
    await fixture.whenStable();
    // Those elsewhere have ended: they are asked for again.
    http.expectOne('/api/sessions').flush([]);
    expect(page.querySelector<HTMLInputElement>('input[name=oldPassword]')?.value).toBe('');
  });

  it('begins with a second factor by password, and counts it from its first code on', async () => {
    const fixture = await open(VIEW);
    type('password', 'before');
    press('Begin');
    const offered = http.expectOne('/api/account/second-factor');
    expect(offered.request.body).toEqual({ password: 'before' });
    offered.flush({ secret: 'JBSWY3DPEHPK3PXP', uri: 'otpauth://totp/x?secret=JBSWY3DPEHPK3PXP' });
    await until(() => page.querySelector('.qr svg') !== null);
    expect(page.querySelector('.secret')?.textContent).toContain('JBSWY3DPEHPK3PXP');
    type('code', '12');
    press('Use it from now on');
    await fixture.whenStable();
    expect(page.querySelector('.wrong')?.textContent).toContain('Type the six digits');
    type('code', '123456');
    press('Use it from now on');
    http.expectOne('/api/account/second-factor/confirmation').flush({ codes: ['aaaaa-bbbbb'], account: WITH });
    await fixture.whenStable();
    expect(page.querySelector('.codes')?.textContent).toContain('aaaaa-bbbbb');
    press('I have them');
    await fixture.whenStable();
    expect(page.textContent).not.toContain('aaaaa-bbbbb');
    expect(page.textContent).toContain('3 of your codes');
  });

  it('says where the clinic asks for a second factor, until there is one', async () => {
    const session = {
      user: { id: SOME_ID, name: 'Wren', email: 'wren@clinic.example', role: 'lead' },
      clinic: { id: SOME_ID, name: 'Saltmarsh Lane' },
    };
    const known = TestBed.inject(Session);
    known.check().subscribe();
    http.expectOne('/api/session').flush({ ...session, secondFactorMissing: true });
    await until(() => known.current());
    const fixture = await open(VIEW);
    expect(page.textContent).toContain('Your clinic asks a second factor of everybody.');
    type('password', 'before');
    press('Begin');
    http.expectOne('/api/account/second-factor').flush({ secret: 'JBSWY3DPEHPK3PXP', uri: 'otpauth://totp/x?secret=JBSWY3DPEHPK3PXP' });
    await until(() => page.querySelector('.qr svg') !== null);
    type('code', '123456');
    press('Use it from now on');
    http.expectOne('/api/account/second-factor/confirmation').flush({ codes: ['aaaaa-bbbbb'], account: WITH });
    (await until(() => http.match('/api/session')[0])).flush({ ...session, secondFactorMissing: false });
    await until(() => known.current()?.secondFactorMissing === false);
    await fixture.whenStable();
    expect(page.textContent).not.toContain('Your clinic asks');
  });

  it('asks for the code too where there is a second factor', async () => {
    const fixture = await open(WITH);
    type('password', 'before');
    press('Do without it');
    await fixture.whenStable();
    expect(page.querySelector('.wrong')?.textContent).toContain('Type the six digits');
    type('code', 'aaaaa-bbbbb');
    press('Do without it');
    const sent = http.expectOne('/api/account/second-factor/removal');
    expect(sent.request.body).toEqual({ password: 'before', code: 'aaaaa-bbbbb' });
    const refusal = {
      type: problemType(422),
      title: '',
      status: 422,
      detail: 'No.',
      errors: [{ path: 'password', message: 'or the code is wrong' }],
    };
    sent.flush(refusal, { status: 422, statusText: 'x' });
    await fixture.whenStable();
    expect(page.querySelector('.wrong')?.textContent).toContain('or the code is wrong');
  });
});
