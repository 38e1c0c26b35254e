import {
  DONE_TRAITS,
  DRILL_STAGES,
  EQUIPMENT,
  IMPOSED_BY,
  IMPOSED_LIMBS,
  IMPOSED_LOADS,
  OWN_DRILL_ID,
  type OwnDrill,
} from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { Dose } from './dose.js';
import { Joint, Mode, Position } from './ids.js';
import { none, nothing, route } from './route.js';

const line = (longest: number) => z.string().trim().min(1).max(longest);
const Name = z.string().min(1).max(80);

const imposed = {
  limb: z.enum(IMPOSED_LIMBS),
  load: z.enum(IMPOSED_LOADS),
  by: z.enum(IMPOSED_BY),
};

/** What a drill does to a joint: takes it so far in a direction, puts weight on it, or is laid on. */
const Imposed = z.discriminatedUnion('what', [
  z.strictObject({
    what: z.literal('moves'),
    motion: Name,
    degrees: z.union([z.number().min(0).max(360), z.literal('full')]),
    ...imposed,
    isFigure: z.literal(false),
  }),
  z.strictObject({ what: z.literal('works'), motion: Name, ...imposed, load: z.literal('resisted') }),
  z.strictObject({ what: z.literal('bears'), joint: Joint, ...imposed }),
  z.strictObject({ what: z.literal('touches'), joint: Joint, ...imposed }),
]);

const Asks = z.array(z.enum(DONE_TRAITS)).max(DONE_TRAITS.length);

const Pose = z.union([z.strictObject({ scene: Name }), z.strictObject({ protocol: Name, value: z.number().min(-720).max(720) })]);
const Marker = z.union([z.strictObject({ protocol: Name, mode: Mode }), z.strictObject({ screen: Name, item: Name })]);

/** A drill as a clinic writes it. What it names is checked by the core. */
export const OwnDrillBody = z.strictObject({
  id: z.string().max(44).regex(OWN_DRILL_ID, 'is not the id of an own drill; allowed: own- and small letters, digits and hyphens'),
  /** The first is 1; a change is one more than the last. */
  version: z.int().min(1).max(100_000),
  name: z.string().trim().min(2).max(60),
  stage: z.enum(DRILL_STAGES),
  serves: z.array(Name).min(1).max(8),
  sides: z.enum(['each', 'none']),
  position: Position,
  equipment: z.array(z.enum(EQUIPMENT)).max(EQUIPMENT.length),
  cues: z.tuple([line(90), line(90), line(90)]),
  cheat: line(120),
  dose: Dose,
  easier: Name.nullable(),
  harder: Name.nullable(),
  mode: Mode,
  imposes: z.array(Imposed).max(120),
  /** What it asks of the whole person; left out: nobody said, and every caution holds. */
  asks: Asks.optional(),
  notWith: z.strictObject({ lax: z.boolean(), pain: z.int().min(0).max(10).nullable(), healingWeeks: z.int().min(0).max(104) }),
  stop: line(200),
  moves: z.array(Marker).min(1).max(8),
  start: Pose,
  end: Pose,
});
export type OwnDrillBody = z.infer<typeof OwnDrillBody>;

/** A version of an own drill as it is kept. */
export const OwnDrillView = z.object({
  drill: described<OwnDrill>(z.looseObject({ id: z.string(), version: z.int(), name: z.string() })),
  inUse: z.boolean(),
  by: z.string(),
  at: z.iso.datetime(),
});
export type OwnDrillView = z.infer<typeof OwnDrillView>;

/** The newest version of each, those that were taken out of use among them. */
export const DrillsView = z.object({ own: z.array(OwnDrillView) });
export type DrillsView = z.infer<typeof DrillsView>;

export const NewDrillVersion = z.strictObject({ drill: OwnDrillBody, inUse: z.boolean() });
export type NewDrillVersion = z.infer<typeof NewDrillVersion>;

/** Drills of a clinic's own, beside those that ship. */
export const DRILL_LIST = {
  drills: route({
    method: 'get',
    path: '/drills',
    keep: true,
    summary: 'The drills of the clinic itself, each as it stands',
    params: none,
    body: nothing,
    answer: DrillsView,
  }),
  keepDrill: route({
    method: 'post',
    path: '/drills',
    summary: 'Keep a drill of the clinic, or another version of it; what was given before keeps its meaning',
    params: none,
    body: NewDrillVersion,
    answer: DrillsView,
  }),
  keepDrillFile: route({
    method: 'post',
    path: '/drill-files',
    summary: 'Bring in drills from CSV: all of them, or none with every refused cell named',
    largest: 600_000,
    params: none,
    body: z.strictObject({ csv: z.string().min(1).max(500_000) }),
    answer: DrillsView.extend({
      /** How many are new or changed; the others were there already. */
      kept: z.int(),
      alike: z.int(),
    }),
  }),
  drillFile: route({
    method: 'get',
    path: '/drill-files/:which',
    summary: 'Drills as CSV: the clinic’s own, or all there are',
    params: z.object({ which: z.enum(['own', 'all']) }),
    body: nothing,
    answer: z.object({ fileName: z.string(), csv: z.string() }),
  }),
} as const;
