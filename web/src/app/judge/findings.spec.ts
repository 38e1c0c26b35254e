import { visitRecord } from '../testing/records';
import { TestBed } from '@angular/core/testing';
import type { JudgementView } from '@dial-gauge/contract';
import { assess, type Assessment, type Measurement } from '@dial-gauge/core';
import { Findings } from './findings';
import { Strips } from './strips';

const hip = (over: Partial<Measurement>, ...ends: number[]): Measurement => ({
  motion: 'hip.extension',
  side: 'left',
  mode: 'passive',
  position: 'prone',
  instrument: 'goniometer',
  trials: ends.map((end) => ({ end })),
  ...over,
});
const view = (measurements: Measurement[], before?: Measurement[]): JudgementView => {
  const assessment: Assessment = {
    person: { birthDate: '1984-05-02', sex: 'male' },
    assessedOn: '2026-11-20',
    measurements,
    previous: before && { assessedOn: '2026-10-20', measurements: before },
  };
  const id = crypto.randomUUID();
  return {
    visit: { id, assessedOn: '2026-11-20', examiner: '', readings: 1, simulated: 0, number: 2, signed: false },
    patient: { id, givenName: 'A', familyName: 'B', birthDate: '1984-05-02', sex: 'male', occupation: '' },
    episode: { ...visitRecord().episode, id, complaint: '', involvedSide: null },
    aside: [],
    previousOn: before ? '2026-10-20' : null,
    judgement: assess(assessment),
    seen: { revision: 'r', at: '2026-11-20T10:00:00.000Z' },
    odd: [],
    summary: null,
    signing: { notYours: null, signatures: [], amending: null, changes: [], late: [] },
  };
};
const draw = (component: typeof Findings | typeof Strips, value: JudgementView): HTMLElement => {
  const fixture = TestBed.createComponent<Findings | Strips>(component);
  fixture.componentRef.setInput('view', value);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
};

describe('Findings', () => {
  it('puts what matters first and folds what did not change', () => {
    const element = draw(Findings, view([hip({ pain: 3 }, -4), hip({ side: 'right' }, 15)], [hip({}, -6), hip({ side: 'right' }, 4)]));
    const lines = [...element.querySelectorAll('ol > li')].map((li) => li.textContent!.replace(/\s+/g, ' '));
    expect(lines[0]).toContain('Left hip extension, passive lacks 4° of straight: hurts, 3 of 10');
    expect(lines.some((line) => line.includes('19° less than the right side'))).toBeTrue();
    const [changed, within] = [...element.querySelectorAll<HTMLDetailsElement>('details.group')];
    expect([changed!.open, within!.open]).toEqual([true, false]);
    expect(changed!.textContent).toContain('11° more than last time');
  });

  it('says so when nothing is short', () => {
    const said = draw(Findings, view([hip({ mode: 'active' }, 13)])).textContent!.replace(/\s+/g, ' ');
    expect(said).toContain('Nothing that was judged is short of normal (Boone & Azen 1979 1)');
  });

  it('calls nothing fine that was not judged, and names it with the reason', () => {
    const girth = hip({ motion: 'girth.calf', position: 'supine', instrument: 'tape', trials: [{ value: 36 }] }, 36);
    const said = draw(Findings, view([girth])).textContent!.replace(/\s+/g, ' ');
    expect(said).toContain('Nothing was judged against norms');
    expect(said).toContain('Not judged against norms (1)');
    expect(said).toMatch(/Left calf girth.*: the other side is not measured/);
  });
});

describe('Strips', () => {
  it('shows both sides of a motion in one row, in words too, and no bare sign', () => {
    const element = draw(Strips, view([hip({}, -4), hip({ side: 'right' }, 15)], [hip({}, -12)]));
    expect(element.querySelectorAll('ul:not(.legend) > li').length).toBe(1);
    const pictures = [...element.querySelectorAll('svg[role=img]')].map((svg) => svg.getAttribute('aria-label'));
    expect(pictures[0]).toBe('left: passive lacks 4° of straight, expected 30 to 30, short of normal, last visit lacks 12');
    expect(pictures[1]).toContain('right: passive 15°');
    expect(element.textContent).not.toMatch(/[-−]\d/);
  });

  it('puts total rotation beside its ends, in the same position and mode only, and each figure opens its evidence', () => {
    const rotation = (name: 'internal' | 'external', side: 'left' | 'right', end: number, over: Partial<Measurement> = {}) =>
      hip({ motion: `hip.${name}Rotation`, side, ...over }, end);
    const element = draw(
      Strips,
      view([
        rotation('external', 'left', 33),
        rotation('internal', 'left', 28),
        rotation('external', 'right', 34),
        rotation('internal', 'right', 25),
        rotation('internal', 'left', 31, { position: 'sitting' }),
      ]),
    );
    const arcs = [...element.querySelectorAll('li.arc')];
    expect(arcs.map((arc) => arc.textContent!.replace(/\s+/g, ' ').trim())).toEqual([
      '33 + 28 61 Totalpassive 59 34 + 25 2° apart, within error',
    ]);
    expect([...arcs[0]!.querySelectorAll('button')].map((b) => b.getAttribute('aria-label'))).toEqual([
      'Evidence of left total rotation, passive, 61',
      'Evidence of right total rotation, passive, 59',
    ]);
  });

  it('says what was not measured', () => {
    const element = draw(Strips, view([hip({}, 13)]));
    expect(element.querySelectorAll('svg[role=img]')[1]!.getAttribute('aria-label')).toBe('right: not measured');
  });
});

describe('what is not a joint angle', () => {
  const tape = (side: 'left' | 'right', value: number): Measurement => ({
    motion: 'distance.kneeToWall',
    side,
    mode: 'active',
    position: 'standing',
    instrument: 'tape',
    trials: [{ value }],
  });

  it('stands in a section of its own, in its unit, with the midline on one strip', () => {
    const floor: Measurement = { ...tape('left', 24), motion: 'distance.fingerToFloor', side: 'midline' };
    const element = draw(Strips, view([hip({}, 13), tape('left', 4.5), tape('right', 11), floor]));
    expect([...element.querySelectorAll('h3')].map((h) => h.textContent)).toEqual(['Hip', 'Distances']);
    const pictures = [...element.querySelectorAll('svg[role=img]')].map((svg) => svg.getAttribute('aria-label'));
    expect(pictures).toContain('left: 4.5 cm, expected 3.4 to 15.6');
    expect(pictures).toContain('Finger to floor: 24 cm above the floor, expected 0 to 0, short of normal');
    const middle = [...element.querySelectorAll('li.middle')];
    expect(middle.map((li) => li.querySelectorAll('dg-arc-strip').length))
      .withContext('no side, one strip in the middle')
      .toEqual([1]);
    expect(middle[0]!.textContent).toContain('by Common practice');
    expect(element.textContent!.replace(/\s+/g, ' ')).toContain('standing · cm');
  });

  it('says what the range is enough for, and what was not compared', () => {
    const sitting = hip({ motion: 'hip.internalRotation', position: 'sitting', side: 'right' }, 30);
    const element = draw(
      Findings,
      view([hip({ motion: 'hip.flexion', position: 'supine' }, 105), hip({ motion: 'hip.internalRotation' }, 20), sitting]),
    );
    const groups = [...element.querySelectorAll('details.group')].map((group) => group.textContent!.replace(/\s+/g, ' '));
    expect(groups.find((text) => text.includes('What the range is enough for'))).toContain('enough for walking, stairs down, stairs up');
    expect(groups.find((text) => text.includes('Not compared'))).toContain('by another protocol (Hip internal rotation, sitting)');
  });
});
