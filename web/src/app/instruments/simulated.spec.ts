import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideHttpClient } from '@angular/common/http';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { type SimulationSetup } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { Lines } from '../live/line';
import { FakeLines } from '../testing/fake-lines';
import { FakeQueue } from '../testing/fake-queue';
import { SOME_ID } from '../testing/records';
import { readScenario, SCENARIOS } from './scenarios';
import { SimulatedPage } from './simulated';

describe('simulated instruments', () => {
  let fixture: ComponentFixture<SimulatedPage>;
  let lines: FakeLines;
  const page = () => fixture.nativeElement as HTMLElement;
  const button = (name: string) =>
    [...page().querySelectorAll('button')].find((b) => (b.getAttribute('aria-label') ?? b.textContent!.trim()) === name)!;
  const open = () => {
    fixture = TestBed.createComponent(SimulatedPage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
  };
  const setup = () => (lines.last.hello as { setup: SimulationSetup }).setup;

  beforeEach(() => {
    localStorage.clear();
    lines = new FakeLines();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [
        provideHttpClient(),
        provideRouter([]),
        { provide: CommandQueue, useValue: new FakeQueue() },
        { provide: Lines, useValue: lines },
      ],
    });
    open();
  });

  it('begin as one, and become another scenario with a line of its own', () => {
    expect(setup().devices.length).toBe(1);
    button('Two inclinometers on the low back: 96 and 41').click();
    fixture.detectChanges();
    expect(setup().devices.map(({ to }) => to)).toEqual([96, 41]);
    expect(lines.opened.map(({ listeners }) => listeners)).toEqual([0, 1]);
    expect(page().querySelectorAll('.device').length).toBe(2);
  });

  it('show what they show, hear what they are told, and pass on what is pressed', () => {
    const shows = { t: 1, degrees: 30, held: 30, peak: 30, outOfPlane: 33, still: 1, way: 1, lost: false, zero: 'start', zeroedAt: 'k' };
    lines.last.in.next({ k: 'face', device: 0, shown: 30, reach: 0.25, shows });
    lines.last.in.next({ k: 'told', device: 0, said: { k: 'asks', for: 'f', place: 'p', words: 'left knee flexion', way: null } });
    fixture.detectChanges();
    expect(page().querySelector('.shown')!.textContent).toBe('30°');
    expect(page().querySelector('.device svg')!.classList).toContain('refused');
    expect(page().querySelector('.told')!.textContent).toContain('left knee flexion');
    expect(page().textContent).toContain('25 %');
    button('Inclinometer: zero').click();
    button('Inclinometer: hold').click();
    button('To the end of range').click();
    expect(lines.last.out).toEqual([
      { k: 'press', device: 0, button: 'zero' },
      { k: 'press', device: 0, button: 'hold' },
      { k: 'move', to: 1 },
    ]);
  });

  it('are there again after a reload, and lose nothing to a figure that does not fit', () => {
    button('An old one: coarse, drifting, put on askew').click();
    fixture.detectChanges();
    const before = setup();
    const noise = [...page().querySelectorAll('label')].find((label) => label.textContent!.includes('Noise'))!.querySelector('input')!;
    noise.value = '99';
    noise.dispatchEvent(new Event('change'));
    fixture.detectChanges();
    expect(page().querySelector('.problem')!.textContent).toContain('devices.0.noise');
    expect(setup()).toEqual(before);
    fixture.destroy();
    open();
    expect(setup()).toEqual(before);
  });

  it('read a scenario file, or say what is wrong with it', () => {
    for (const { setup: ready } of SCENARIOS) expect(readScenario(JSON.stringify(ready))).toEqual(ready);
    expect(readScenario('no')).toContain('not JSON');
    expect(readScenario(JSON.stringify({ ...SCENARIOS[0]!.setup, rate: 5000 }))).toMatch(/^rate: /);
    expect(readScenario(JSON.stringify({ ...SCENARIOS[0]!.setup, more: 1 }))).toMatch(/more/);
  });
});
