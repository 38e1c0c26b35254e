import { HttpBackend, HttpResponse, HttpErrorResponse } from '@angular/common/http';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LIVE_CLOSED } from '@dial-gauge/contract';
import type { GravitySample } from '@dial-gauge/core';
import { of, Subject, throwError } from 'rxjs';
import { Lines } from '../live/line';
import { FakeLines } from '../testing/fake-lines';
import { PhonePage } from './phone';
import { TiltSensor } from './tilt';

const KEY = 'k'.repeat(43);
const ASKS = { k: 'asks', for: 'left hip flexion active', place: 'left hip', words: 'left hip flexion, active', way: null };

describe('a phone as an inclinometer', () => {
  let fixture: ComponentFixture<PhonePage>;
  let lines: FakeLines;
  let samples: Subject<GravitySample>;
  let sent: unknown[];
  let refuse: number | null;
  let time: number;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = () => page().textContent!.replace(/\s+/g, ' ');
  const button = (name: RegExp) =>
    [...page().querySelectorAll('button')].find((b) => name.test(b.getAttribute('aria-label') ?? b.textContent!))!;
  const settle = async () => {
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const open = () => {
    fixture = TestBed.createComponent(PhonePage);
    fixture.detectChanges();
  };
  const pair = async (code = '123456') => {
    const field = page().querySelector('input')!;
    field.value = code;
    field.dispatchEvent(new Event('input'));
    button(/Pair/).click();
    await settle();
  };
  /** Held at a tilt for a while: in the plane, so far out of it. */
  const feel = (tilt: number, out = 0, count = 30) => {
    const [a, b] = [(tilt * Math.PI) / 180, (out * Math.PI) / 180];
    for (let n = 0; n < count; n += 1) {
      time += 0.03;
      samples.next({ t: time, g: [Math.cos(b) * Math.cos(a), Math.cos(b) * Math.sin(a), Math.sin(b)] });
    }
    fixture.detectChanges();
  };
  const say = (said: object) => {
    lines.last.in.next(said);
    fixture.detectChanges();
  };
  const held = () => lines.last.out.filter(({ k }) => k === 'held');

  beforeEach(() => {
    sessionStorage.clear();
    lines = new FakeLines();
    samples = new Subject();
    sent = [];
    refuse = null;
    time = 1;
    const backend = {
      handle: ({ body }: { body: unknown }) => {
        sent.push(body);
        if (refuse)
          return throwError(() => new HttpErrorResponse({ status: refuse!, error: { title: 'x', detail: 'This code is not right.' } }));
        return of(new HttpResponse({ body: { key: KEY, clinic: 'Saltmarsh Lane', until: new Date().toISOString() } }));
      },
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: HttpBackend, useValue: backend },
        { provide: Lines, useValue: lines },
        { provide: TiltSensor, useValue: { samples, mustAsk: false, isSecure: true, ask: () => Promise.resolve(true) } },
      ],
    });
    open();
  });
  afterEach(() => {
    // What was begun on the test's time ends on it.
    TestBed.resetTestingModule();
    jasmine.clock().uninstall();
    sessionStorage.clear();
  });

  it('is paired by its code, and says why when it is not', async () => {
    refuse = 401;
    await pair('111111');
    expect(text()).toContain('This code is not right.');
    refuse = null;
    await pair('123 456');
    expect(sent).toEqual([{ code: '111111' }, { code: '123 456' }]);
    expect(lines.last.hello).toEqual({ as: 'phone', key: KEY });
    expect(text()).toContain('paired with Saltmarsh Lane');
  });

  it('shows how far it came from zero, how far it is out of plane, and what is measured', async () => {
    await pair();
    say(ASKS);
    feel(10);
    expect(page().querySelector('.digits')!.textContent).toBe('–');
    button(/Set zero/).click();
    feel(57, 4);
    expect(page().querySelector('.digits')!.textContent).toBe('47°');
    expect(text()).toContain('left hip flexion, active');
    expect(text()).toContain('4° out of plane: good');
    feel(57, 12);
    expect(text()).toContain('12° out of plane: reads low');
    feel(57, 34);
    expect(text()).toContain('34° out of plane: too far: not read');
    const last = lines.last.saidLast('shows')!['shows'] as { degrees: number; zeroedAt: string };
    expect([Math.round(last.degrees), last.zeroedAt]).toEqual([47, 'left hip']);
  });

  it('holds what is shown for what was asked, again until it is answered, and over a reload', async () => {
    await pair();
    // Paired already: the page comes back to its line. From here on time is the test's.
    fixture.destroy();
    jasmine.clock().install();
    open();
    say(ASKS);
    feel(0);
    button(/Set zero/).click();
    feel(47);
    button(/^Hold/).click();
    fixture.detectChanges();
    expect(text()).toContain('holding 47° …');
    const [first] = held();
    expect([first!['for'], Math.round((first!['shows'] as { held: number }).held)]).toEqual([ASKS.for, 47]);
    jasmine.clock().tick(1100);
    expect(new Set(held().map(({ id }) => id)).size).toBe(1);
    expect(held().length).toBeGreaterThan(1);
    fixture.destroy();
    open();
    say({ ...ASKS, for: 'something else' });
    expect(held().at(-1)).toEqual(first as never);
    say({ k: 'answer', id: first!['id'], taken: true, words: '47°' });
    expect(text()).toContain('held 47°');
    const count = held().length;
    jasmine.clock().tick(5000);
    expect(held().length).toBe(count);
  });

  it('gives up a hold that reached nobody for too long', async () => {
    await pair();
    say(ASKS);
    feel(0);
    button(/Set zero/).click();
    feel(47);
    lines.last.isOpen.set(false);
    button(/^Hold/).click();
    fixture.destroy();
    const kept = JSON.parse(sessionStorage.getItem('dial-gauge.phone')!) as { waiting: { at: number } };
    kept.waiting.at -= 3 * 60_000;
    sessionStorage.setItem('dial-gauge.phone', JSON.stringify(kept));
    open();
    say(ASKS);
    expect(held()).toEqual([]);
    expect(page().querySelector('.outcome.refused')!.textContent).toContain('measure it again');
  });

  it('says what to do when there is nothing to hold, and what was refused', async () => {
    await pair();
    feel(0);
    button(/^Hold/).click();
    fixture.detectChanges();
    expect(text()).toContain('Set zero first');
    button(/Set zero/).click();
    button(/^Hold/).click();
    fixture.detectChanges();
    expect(text()).toContain('Nobody reads this phone yet');
    say(ASKS);
    expect(text()).toContain('zero was set for another measurement');
    button(/Set zero/).click();
    feel(20);
    button(/^Hold/).click();
    say({ k: 'answer', id: held()[0]!['id'], taken: false, words: 'Past its limit.' });
    expect(page().querySelector('.outcome.refused')!.textContent).toContain('Past its limit.');
  });

  it('counts the way it is told, and sets zero when it is told', async () => {
    await pair();
    say({ ...ASKS, way: -1 });
    feel(0);
    say({ k: 'zero', at: 'start' });
    feel(30);
    expect(page().querySelector('.digits')!.textContent).toBe('-30°');
  });

  it('let go, it is no inclinometer any more', async () => {
    await pair();
    say({ k: 'letGo' });
    expect(text()).toContain('This phone was let go');
    expect(sessionStorage.getItem('dial-gauge.phone')).toBeNull();
    await pair();
    lines.last.refused.set(LIVE_CLOSED.noSession);
    lines.last.in.error(new Error('closed'));
    fixture.detectChanges();
    expect(text()).toContain('opened elsewhere');
    expect(page().querySelector('input')).not.toBeNull();
  });

  it('tells when no connection is there, and keeps what is held meanwhile', async () => {
    await pair();
    lines.last.isOpen.set(false);
    fixture.detectChanges();
    expect(text()).toContain('no connection: what you hold is kept');
  });
});
