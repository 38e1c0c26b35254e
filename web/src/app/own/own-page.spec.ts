import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { DayLog, OwnPage } from '@dial-gauge/contract';
import { turns, until } from '../testing/until';
import { OwnPagePage } from './own-page';

const TOKEN = 'some-link';
const today = () => {
  const now = new Date();
  return [now.getFullYear(), String(now.getMonth() + 1).padStart(2, '0'), String(now.getDate()).padStart(2, '0')].join('-');
};
const drill = (given: string, over: object = {}) => ({
  ...{ given, step: '', rests: false },
  block: {
    kind: 'drill',
    title: `${given}, left`,
    dose: 'Do it 12 times.',
    cues: ['Slide.'],
    stop: 'Stop if it hurts.',
    start: { protocol: 'knee.flexion/supine', value: 10 },
    end: { protocol: 'knee.flexion/supine', value: 90 },
  },
  ...over,
});
const PAGE = {
  ...{ clinic: 'Saltmarsh Lane', name: 'Ilka', expiresAt: '2099-01-01T00:00:00.000Z', recheckOn: '2098-12-01' },
  drills: [drill('heel-slide'), drill('knee-press', { rests: true })],
  ...{ better: ['Bending your left knee: 60 degrees at first, 95 degrees now.'], less: [], same: 1, logged: [] },
} as unknown as OwnPage;

describe('the person’s own page', () => {
  let fixture: ComponentFixture<OwnPagePage>;
  let http: HttpTestingController;
  const page = () => fixture.nativeElement as HTMLElement;
  const button = (name: string) =>
    [...page().querySelectorAll('button')].find((one) => (one.getAttribute('aria-label') ?? one.textContent!).trim() === name)!;
  const settled = async () => {
    await turns();
    fixture.detectChanges();
  };
  const create = async () => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(OwnPagePage);
    fixture.componentRef.setInput('token', TOKEN);
    fixture.detectChanges();
    await settled();
  };
  const answered = async (url: string, body: object, status = 200) => {
    await until(
      () =>
        http
          .match((request) => request.url === url)
          .map((request) => (status === 0 ? request.error(new ProgressEvent('error')) : request.flush(body, { status, statusText: 'x' })))
          .length > 0,
    );
    await settled();
  };
  const open = async () => {
    await create();
    page().querySelector<HTMLInputElement>('input.code')!.value = '123 456';
    button('Open my page').click();
    await answered('/api/own-page/opening', { key: 'k'.repeat(43) });
    await answered('/api/own-page', PAGE);
  };
  beforeEach(() => localStorage.clear());
  afterEach(() => localStorage.clear());

  it('tells what is less than before first, and whom to ask', async () => {
    await create();
    page().querySelector<HTMLInputElement>('input.code')!.value = '123 456';
    button('Open my page').click();
    await answered('/api/own-page/opening', { key: 'k'.repeat(43) });
    await answered('/api/own-page', { ...PAGE, better: [], less: ['Bending your left knee: 95 degrees on 3 Nov 2026, 77 degrees now.'] });
    const text = page().querySelector<HTMLElement>('section')!.innerText.replace(/\s+/g, ' ');
    expect(text).toContain('What is less than before Bending your left knee: 95 degrees on 3 Nov 2026, 77 degrees now. Ask us about this.');
    expect(text).toContain('What is better Nothing yet that we can be sure of.');
    expect(text.indexOf('What is less')).toBeLessThan(text.indexOf('What is better'));
  });

  it('does not show how to do what a limit that came later speaks against', async () => {
    await create();
    page().querySelector<HTMLInputElement>('input.code')!.value = '123 456';
    button('Open my page').click();
    await answered('/api/own-page/opening', { key: 'k'.repeat(43) });
    await answered('/api/own-page', { ...PAGE, drills: [drill('heel-slide'), drill('knee-press', { rests: true, limited: true })] });
    const shown = [...page().querySelectorAll('li.drill')].map((one) => one.textContent!);
    expect([shown[0]!.includes('How to do it'), shown[1]!.includes('How to do it')]).toEqual([true, false]);
    expect(shown[1]).toContain('There is a new limit for you. Do not do this one any more, and call us.');
    expect(button('Done: knee-press, left')).toBeUndefined();
  });

  it('opens by its code, ticks drills, and lets one rest that made it worse', async () => {
    await open();
    expect(page().querySelector('h1')!.textContent).toMatch(/^Today, \w+/);
    button('Done: heel-slide, left').click();
    fixture.detectChanges();
    expect(button('Done: heel-slide, left').getAttribute('aria-pressed')).toBe('true');
    expect(button('Done: knee-press, left')).toBeUndefined();
    expect(page().textContent).toContain('Leave this one out for now, and call us.');
    expect(page().textContent).toContain('1 more number is about the same.');
  });

  it('keeps what was chosen over a reload, and a day without a network until there is one: it is sent once, with one id', async () => {
    await open();
    button('Done: heel-slide, left').click();
    button('4').click();
    await create();
    await answered('/api/own-page', PAGE);
    expect(button('Done: heel-slide, left').getAttribute('aria-pressed')).toBe('true');
    button('Save this day').click();
    await answered('/api/own-page/days', {}, 0);
    expect(page().querySelector('.state')!.textContent).toContain('kept on this device');
    // Another reload: what waits goes first.
    await create();
    let sent: DayLog | undefined;
    await until(() => {
      for (const request of http.match(({ url }) => url === '/api/own-page/days')) {
        sent = (request.request.body as { day: DayLog }).day;
        request.flush({});
      }
      return sent !== undefined;
    });
    expect(sent).toEqual({
      id: jasmine.any(String) as unknown as string,
      on: today(),
      done: ['heel-slide'],
      easy: null,
      pain: 4,
      swelling: null,
      worse: null,
      note: '',
    });
    await answered('/api/own-page', { ...PAGE, logged: [sent!] });
    expect(page().querySelector('.state')!.textContent).toBe('saved');
    http.expectNone('/api/own-page/days');
  });

  it('says that a code is wrong, and that a page was closed, and loses nothing', async () => {
    await create();
    button('Open my page').click();
    await answered('/api/own-page/opening', { title: 'Not opened', detail: 'The link or the code is not right.' }, 401);
    expect(page().querySelector('[role=alert]')!.textContent).toContain('The link or the code is not right.');
    await open();
    button('Save this day').click();
    await answered('/api/own-page/days', { detail: 'closed' }, 401);
    expect(page().textContent).toContain('This page was closed.');
    expect(page().querySelector('.state')!.textContent).toBe('kept on this device');
  });

  it('drops what the server will never take, and says why', async () => {
    await open();
    button('Save this day').click();
    await answered('/api/own-page/days', { detail: 'Nothing was saved.', errors: [{ path: 'day.on', message: 'lies outside' }] }, 422);
    await answered('/api/own-page', PAGE);
    expect(page().textContent).toContain('day.on: lies outside');
    expect(page().querySelector('.state')!.textContent).not.toContain('kept on this device');
  });
});
