import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Type } from '@angular/core';
import { provideRouter, Router } from '@angular/router';
import { explain, NewDrillVersion, type OwnDrillView } from '@dial-gauge/contract';
import { DRILLS, findDrill, type Drill, type OwnDrill } from '@dial-gauge/core';
import { until } from '../testing/until';
import { provideIcons } from '../ui/icons';
import { DrillsPage } from './drills';
import { WriteDrillPage } from './write';

const bare = ({ doseSource: _dose, source: _source, traits, is: _is, ...drill }: Drill) => ({ ...drill, asks: [...traits] });
const SLIDE = bare(findDrill('heel-slide')!);
const OWN: OwnDrill = { ...SLIDE, id: 'own-slide', version: 3, name: 'Slide on the wall', easier: null, harder: null };
const entry = (over: Partial<OwnDrillView> = {}): OwnDrillView => ({
  drill: OWN,
  inUse: true,
  by: 'Wren Calloway',
  at: '2026-11-20T09:00:00.000Z',
  ...over,
});

describe('drills', () => {
  let http: HttpTestingController;
  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), provideIcons()] });
    http = TestBed.inject(HttpTestingController);
  });
  afterEach(() => {
    http.verify();
    localStorage.clear();
  });

  async function opened<T>(
    page: Type<T>,
    inputs: Record<string, string> = {},
    own: OwnDrillView[] = [entry()],
  ): Promise<ComponentFixture<T>> {
    const fixture = TestBed.createComponent(page);
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    fixture.detectChanges();
    http.expectOne('/api/drills').flush({ own });
    await fixture.whenStable();
    return fixture;
  }
  const host = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;
  const button = (fixture: ComponentFixture<unknown>, name: string): HTMLElement =>
    [...host(fixture).querySelectorAll<HTMLElement>('button')].find((one) =>
      (one.getAttribute('aria-label') ?? one.textContent ?? '').includes(name),
    )!;
  async function type(fixture: ComponentFixture<unknown>, label: string, text: string): Promise<void> {
    const field = [...host(fixture).querySelectorAll('label')]
      .find((one) => one.textContent.trim().startsWith(label))!
      .querySelector('input')!;
    field.value = text;
    for (const kind of ['input', 'change']) field.dispatchEvent(new Event(kind));
    await fixture.whenStable();
  }
  async function choose(fixture: ComponentFixture<unknown>, label: string, value: string): Promise<void> {
    const field = host(fixture).querySelector<HTMLSelectElement>(`select[aria-label="${label}"]`)!;
    field.value = value;
    field.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  }

  it('are listed by what they serve, and found by words, stage and whose they are', async () => {
    const fixture = await opened(DrillsPage);
    const status = () => host(fixture).querySelector('.bar [role=status]')!.textContent;
    expect(status()).toBe(`${DRILLS.length + 1} of ${DRILLS.length + 1}`);
    const search = host(fixture).querySelector<HTMLInputElement>('input[type=search]')!;
    search.value = 'knee slide wall';
    search.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect([...host(fixture).querySelectorAll('summary strong')].map((one) => one.textContent)).toEqual(['Slide on the wall']);
    search.value = '';
    search.dispatchEvent(new Event('input'));
    button(fixture, 'our own').click();
    await fixture.whenStable();
    expect(status()).toBe(`1 of ${DRILLS.length + 1}`);
    button(fixture, 'load').click();
    await fixture.whenStable();
    expect(host(fixture).textContent).toContain('No drill holds all of these words.');
  });

  it('are taken out of use and used again as another version', async () => {
    const fixture = await opened(DrillsPage);
    button(fixture, 'Take out of use: Slide on the wall').click();
    const { request } = http.expectOne('/api/drills');
    expect(request.body).toEqual({ drill: { ...OWN, version: 4 }, inUse: false });
    http.match(() => true);
    const again = await opened(DrillsPage, {}, [entry({ inUse: false })]);
    button(again, 'Use again: Slide on the wall').click();
    const asked = http.expectOne('/api/drills');
    asked.flush({ own: [entry({ drill: { ...OWN, version: 4 } })] });
    await again.whenStable();
    expect(host(again).textContent).toContain('Slide on the wall is in use again.');
  });

  it('come in from a file: what was refused is told by line, and nothing else changes', async () => {
    const fixture = await opened(DrillsPage);
    const field = host(fixture).querySelector<HTMLInputElement>('input[type=file]')!;
    const files = new DataTransfer();
    files.items.add(new File(['name'], 'ours.csv'));
    field.files = files.files;
    field.dispatchEvent(new Event('change'));
    const asked = await until(() => http.match('/api/drill-files')[0]);
    asked.flush(
      {
        title: 'The drills were refused',
        detail: 'Nothing was brought in: one line is wrong.',
        errors: [{ path: 'line 2, stage', message: 'is empty' }],
      },
      { status: 422, statusText: 'no' },
    );
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role=alert]')!.textContent).toContain('line 2, stage');
  });

  it('are written like another: what is missing is named, what is kept is what stands there', async () => {
    const fixture = await opened(WriteDrillPage, { id: 'new', like: 'heel-slide' });
    button(fixture, 'Keep this drill').click();
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role=alert]')!.textContent).toContain('Name: is too short; allowed: at least 2');
    await type(fixture, 'Name', ' Heel slide on the wall ');
    await type(fixture, 'Third cue', 'Rest.');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    button(fixture, 'Keep this drill').click();
    const asked = http.expectOne('/api/drills');
    const { drill, inUse } = asked.request.body as { drill: OwnDrill; inUse: boolean };
    expect([drill.id, drill.version, drill.name, drill.cues[2], inUse]).toEqual([
      'own-heel-slide-on-the-wall',
      1,
      'Heel slide on the wall',
      'Rest.',
      true,
    ]);
    expect(drill.imposes).toEqual(SLIDE.imposes);
    asked.flush({ own: [] });
    await fixture.whenStable();
    expect(navigate).toHaveBeenCalledOnceWith(['/drills']);
    expect(Object.keys(localStorage).some((key) => key.includes('drill.new'))).toBeFalse();
  });

  it('are taken by the contract when written like any that ships', async () => {
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const some = [...DRILLS.filter(({ onlyWhere }) => onlyWhere), findDrill('heel-slide')!];
    for (const { id } of some) {
      const fixture = await opened(WriteDrillPage, { id: 'new', like: id });
      await type(fixture, 'Name', 'Another one');
      button(fixture, 'Keep this drill').click();
      const asked = http.expectOne('/api/drills');
      const taken = NewDrillVersion.safeParse(asked.request.body);
      expect(taken.success ? [] : explain(taken.error))
        .withContext(id)
        .toEqual([]);
      asked.flush({ own: [] });
      await fixture.whenStable();
      fixture.destroy();
    }
    expect(navigate).toHaveBeenCalledTimes(some.length);
  });

  it('keep what is half written over a reload, and begin again when asked', async () => {
    const first = await opened(WriteDrillPage, { id: 'new' });
    await type(first, 'Name', 'Half');
    await choose(first, 'Add what it serves', 'knee.flexion');
    first.destroy();
    const second = await opened(WriteDrillPage, { id: 'new' });
    const name = () => host(second).querySelector<HTMLInputElement>('input[type=text]')!.value;
    expect(name()).toBe('Half');
    expect(host(second).querySelector('aside')!.textContent).toContain(
      'knee flexion as far as it goes, the side that works: it is served, and nothing is said of it',
    );
    button(second, 'Begin again').click();
    await second.whenStable();
    expect(name()).toBe('');
  });

  it('say what limits are held against: rows are added, changed and taken away, and a figure is refused by name', async () => {
    const fixture = await opened(WriteDrillPage, { id: 'own-slide' });
    const rows = () => [...host(fixture).querySelectorAll('.imposed')].length;
    const before = rows();
    button(fixture, 'A joint it moves').click();
    button(fixture, 'Weight on a joint').click();
    await fixture.whenStable();
    expect(rows()).toBe(before + 2);
    const weight = [...host(fixture).querySelectorAll('.imposed')].at(-1)!;
    const joint = weight.querySelector<HTMLSelectElement>('select[aria-label=Joint]')!;
    joint.value = 'lumbar';
    joint.dispatchEvent(new Event('change'));
    const angle = host(fixture).querySelector<HTMLInputElement>('.imposed input')!;
    angle.value = 'deep';
    angle.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role=alert]')!.textContent).toContain('“deep” is no angle; allowed: degrees');
    angle.value = '95,5';
    angle.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    button(fixture, 'Keep as version 4').click();
    const { drill } = http.expectOne('/api/drills').request.body as { drill: OwnDrill };
    expect(drill.imposes[0]).toEqual(jasmine.objectContaining({ degrees: 95.5 }));
    expect(drill.imposes.at(-1)).toEqual({ what: 'bears', joint: 'lumbar', limb: 'trunk', load: 'body', by: 'held' });
  });

  it('change their usual words with the stage, and leave what was written by hand', async () => {
    const fixture = await opened(WriteDrillPage, { id: 'new' });
    const stage = host(fixture).querySelector('select')!;
    const stop = () =>
      [...host(fixture).querySelectorAll('label')].find((one) => one.textContent.includes('When to stop'))!.querySelector('input')!.value;
    const to = async (index: number) => {
      stage.selectedIndex = index;
      stage.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    await to(4);
    expect(stop()).toContain('when you can no longer do it well');
    await type(fixture, 'When to stop', 'Stop when tired.');
    await to(0);
    expect(stop()).toBe('Stop when tired.');
  });

  it('that are not there are said so', async () => {
    const fixture = await opened(WriteDrillPage, { id: 'own-nowhere' });
    expect(host(fixture).textContent).toContain('No drill of this clinic has this address.');
  });
});
