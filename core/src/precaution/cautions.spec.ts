import { MOTIONS, protocolOfId } from '../catalogue/index.js';
import { DONE_TRAITS, traitsOf, type DoneTrait } from '../imposes/index.js';
import { answeredOf, CAUTIONS, itemsOfSheet, planExam } from '../plan/index.js';
import { asDrill, DRILLS, findDrill, forbiddenDrill, leaveFor, walkLadder, type OwnDrill } from '../program/index.js';
import { factsOf } from '../reason/facts.js';
import { BREAKDOWNS, testsFor } from '../reason/index.js';
import { SCREENS } from '../screen/index.js';
import { assess } from '../finding/index.js';
import { limited } from '../testing/limits.js';
import type { Mode, Side } from '../terms.js';
import { allowedDoing, allowedFor, CAUTION_RULES, CAUTION_SHORT, forbiddenWords, TRAIT_WORDS, type Limits } from './index.js';

const ON = '2026-11-20';
const answered = (...yes: string[]): Limits => ({ precautions: [], cautions: answeredOf({ yes }), on: ON });
const answeredAt = (id: string, ...parts: ('knee' | 'shoulder' | 'neck')[]): Limits => ({
  precautions: [],
  cautions: answeredOf({ yes: [id], where: { [id]: parts } }),
  on: ON,
});
const measured = (protocol: string, limits: Limits, mode: Mode = 'passive', side: Side = 'left') => {
  const { motion: of, modes } = protocolOfId(protocol)!;
  return allowedFor({ protocol, motion: of, side, mode: modes.includes(mode) ? mode : modes[0]! }, limits).kind;
};
const item = (screen: string, id: string) => SCREENS.find((one) => one.id === screen)!.items.find((one) => one.id === id)!;
const screened = (screen: string, id: string, limits: Limits) => allowedDoing(item(screen, id), 'left', limits).kind;
const drilled = (id: string, limits: Limits) =>
  forbiddenDrill(findDrill(id)!, findDrill(id)!.sides === 'none' ? 'midline' : 'left', limits);

describe('answers to cautions', () => {
  it('leave something out for every question there is, in words of their own', () => {
    expect(Object.keys(CAUTION_RULES).sort()).toEqual(CAUTIONS.map(({ id }) => id).sort());
    expect(Object.keys(CAUTION_SHORT).sort()).toEqual(CAUTIONS.map(({ id }) => id).sort());
    for (const [id, rules] of Object.entries(CAUTION_RULES)) expect(rules.length).withContext(id).toBeGreaterThan(0);
    expect(new Set(DONE_TRAITS.map((trait) => TRAIT_WORDS[trait])).size).toBe(DONE_TRAITS.length);
  });

  it('end everything, or everything of the part, where the question says refer', () => {
    for (const { id, ifYes } of CAUTIONS.filter((one) => one.ifYes === 'refer')) {
      const limits = answered(id);
      const left = DRILLS.filter((drill) => forbiddenDrill(drill, drill.sides === 'none' ? 'midline' : 'left', limits) === null);
      // What is gentle and far from it may be left for a question that forbids single movements.
      expect(left.length)
        .withContext(`${id} ${ifYes}`)
        .toBeLessThan(DRILLS.length * 0.8);
    }
    for (const id of ['fever', 'chest', 'limb-blood', 'consent', 'cauda-equina'])
      expect([measured('wrist.flexion/sitting', answered(id)), drilled('neck-nod', answered(id))?.kind])
        .withContext(id)
        .toEqual(['forbidden', 'forbidden']);
  });

  it('hold for measurements, items, exercises, ladders, next tests and advice alike', () => {
    const thin = answered('thin-bones');
    expect(measured('thoracolumbar.flexion/standing', thin, 'active', 'midline')).toBe('forbidden');
    expect(screened('patterns', 'toeTouch', thin)).toBe('forbidden');
    expect(drilled('back-roll-down', thin)?.kind).toBe('forbidden');
    const ground = { side: 'left' as const, limits: answered('hypermobile'), equipment: [], tolerated: 3, on: ON, givenOn: ON };
    expect(walkLadder('calf-stretch-straight', [], ground).rests).toBeTrue();
    const plan = planExam({ items: itemsOfSheet([{ protocol: 'thoracolumbar.flexion/standing' }]), involved: null, limits: thin });
    expect([plan.steps.length, plan.leftOut.length > 0]).toEqual([0, true]);
    const choosing = { limits: answered('fever'), station: null };
    for (const { questions } of BREAKDOWNS)
      for (const question of questions) expect(testsFor(question, factsOf([], [], []), 'left', choosing)).toEqual([]);
  });

  it('hold at the part they are about, and everywhere until somebody says where', () => {
    expect(measured('knee.flexion/supine', answeredAt('repair-unknown', 'knee'))).toBe('forbidden');
    expect(measured('shoulder.flexion/supine', answeredAt('repair-unknown', 'knee'))).toBe('free');
    expect(measured('shoulder.flexion/supine', answered('repair-unknown'))).toBe('forbidden');
    // The helping limb is of the part too: leaning on the shoulder.
    expect(drilled('shoulder-pendulum', answeredAt('repair-unknown', 'shoulder'))?.kind).toBe('forbidden');
    expect(drilled('heel-slide', answeredAt('repair-unknown', 'shoulder'))).toBeNull();
  });

  it('stop a measurement short of its end where they say so; what is done and not read is left out', () => {
    const loose = answered('hypermobile');
    expect(measured('knee.flexion/supine', loose, 'active')).toBe('gentle');
    expect(measured('knee.flexion/supine', loose, 'passive')).toBe('forbidden');
    expect(drilled('hip-in-hold', loose)?.kind).toBe('forbidden');
  });

  it('say what they leave out and which answer it was', () => {
    const allowed = allowedDoing(item('patterns', 'toeTouch'), 'midline', answered('thin-bones'));
    expect(allowed.kind).toBe('forbidden');
    expect(allowed.kind === 'free' ? '' : forbiddenWords(allowed)).toMatch(/^.+: left out \(answered yes: thin bones\)/);
  });

  it('leave nothing out of nothing: no answer, no limit', () => {
    for (const { protocols } of MOTIONS)
      for (const { id, modes } of protocols)
        expect(measured(id, answered(), modes[0]))
          .withContext(id)
          .toBe('free');
  });

  it('hold every exercise of a clinic of which nobody said what it asks', () => {
    const own: OwnDrill = { ...findDrill('wrist-circles')!, id: 'own-wrist', version: 1, name: 'Own wrist circles' };
    const pregnant = answered('pregnancy');
    expect(forbiddenDrill(asDrill(own), 'left', pregnant)?.kind).toBe('forbidden');
    const said: DoneTrait[] = ['gripping'];
    expect(asDrill({ ...own, asks: said }).traits.has('gripping')).toBeTrue();
    expect(asDrill({ ...own, asks: said }).traits.has('unknown-task')).toBeFalse();
    expect(forbiddenDrill(asDrill(own), 'left', answered())).toBeNull();
  });

  it('follow from what is done where they can', () => {
    expect([...traitsOf('muscleLength.straightLegRaise/supine', 'passive')]).toEqual(
      jasmine.arrayContaining(['supine', 'leg-raised', 'pressed-by-hand', 'push-at-end', 'nerve-tension']),
    );
    expect([...traitsOf('cervical.rotation/sitting', 'active')]).toEqual(jasmine.arrayContaining(['neck-moved', 'end-range-neck']));
    expect(traitsOf('strength.kneeExtension/sitting', 'active').has('max-effort')).toBeTrue();
  });
});

describe('limits over composite motions and over what is a measurement by itself', () => {
  const by = (motion: Parameters<typeof allowedFor>[0]['motion'], over = {}) =>
    limited([{ motion, limit: null, until: null, source: 'surgeon', ...over }]);

  it('the whole trunk and its parts hold each other', () => {
    expect(measured('thoracolumbar.flexion/standing', by('lumbar.flexion'), 'active', 'midline')).toBe('forbidden');
    expect(measured('lumbar.flexion/standing', by('thoracolumbar.flexion'), 'active', 'midline')).toBe('forbidden');
    expect(screened('patterns', 'toeTouch', by('thoracolumbar.flexion'))).toBe('forbidden');
    expect(drilled('knees-to-chest', by('thoracolumbar.flexion'))?.kind).toBe('forbidden');
    expect(measured('cervical.flexion/sitting', by('thoracolumbar.flexion'), 'active', 'midline')).toBe('free');
  });

  it('a limit on a test holds for the item that is that test', () => {
    expect(screened('loadingReadiness', 'kneeToWall', by('distance.kneeToWall'))).toBe('forbidden');
    expect(screened('loadingReadiness', 'kneeToWall', by('distance.kneeToWall', { side: 'right' }))).toBe('free');
    expect(screened('loadingReadiness', 'legRaise', by('muscleLength.straightLegRaise'))).toBe('forbidden');
    expect(screened('loadingReadiness', 'elbowLift', by('muscleLength.straightLegRaise'))).toBe('free');
  });
});

describe('advice in the place of what is left out', () => {
  const short = assess({
    person: { birthDate: '1984-05-02', sex: 'female' },
    assessedOn: ON,
    measurements: [
      { motion: 'hip.internalRotation', side: 'left', mode: 'passive', position: 'prone', instrument: 'goniometer', trials: [{ end: 9 }] },
      { motion: 'shoulder.flexion', side: 'right', mode: 'passive', position: 'supine', instrument: 'goniometer', trials: [{ end: 110 }] },
    ],
  });
  const instead = (limits: Limits) => new Map(leaveFor(short, limits).map((one) => [one.rule.id, one.instead]));

  it('keeps to every limit, of either side', () => {
    expect([...instead(limited()).values()].every((words) => words !== null)).toBeTrue();
    const repaired = instead(
      limited([{ motion: 'shoulder.flexion', kind: 'resisted', side: 'left', limit: null, until: null, source: 'surgeon' }]),
    );
    expect([repaired.get('overhead'), repaired.get('deep-squat-turning') !== null]).toEqual([null, true]);
    const unloaded = instead(limited([{ motion: 'knee.flexion', kind: 'weight', limit: null, until: null, source: 'surgeon' }]));
    expect(unloaded.get('deep-squat-turning')).toBeNull();
  });
});
