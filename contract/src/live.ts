import { ZEROS } from '@dial-gauge/core';
import * as z from 'zod';
import { Id } from './ids.js';
import { ById, none, nothing, route } from './route.js';

/** Where instruments and the screens that read them meet: a WebSocket, text messages of JSON, a few hundred bytes each. */
export const LIVE_PATH = '/api/live';
/** Why a connection was closed, as WebSocket close codes. */
export const LIVE_CLOSED = {
  /** Not understood, too much, or too fast. */
  refused: 4400,
  /** Nobody is signed in, or the pairing stands no more. */
  noSession: 4401,
  /** The role of whoever is signed in does not measure. */
  notAllowed: 4403,
  /** There is no such visit in this clinic. */
  notFound: 4404,
} as const;

const degrees = z.number().min(-100_000).max(100_000);
const share = z.number().min(0).max(1);
const words = z.string().max(200);
/** Which measurement on the run sheet, and where on the body. */
const Key = z.string().max(160);

/** What an instrument shows this moment: counted from its zero, up while its tilt rises. Seconds and degrees. */
export const Shows = z.strictObject({
  t: z.number().min(0),
  degrees: degrees.nullable(),
  held: degrees.nullable(),
  peak: degrees.nullable(),
  outOfPlane: z.number().min(0).max(90),
  still: z.number().min(0),
  way: z.union([z.literal(1), z.literal(-1)]).nullable(),
  lost: z.boolean(),
  zero: z.enum(ZEROS).nullable(),
  /** At which place it was when zero was set: what it had been told with the last `asks`. */
  zeroedAt: Key.nullable(),
});
export type Shows = z.infer<typeof Shows>;

/** What an instrument says. */
export const FromDevice = z.discriminatedUnion('k', [
  z.strictObject({ k: z.literal('shows'), shows: Shows }),
  z.strictObject({ k: z.literal('state'), battery: share.nullable(), quality: z.enum(['good', 'poor']) }),
  /** Held at the instrument itself, for the measurement it was asked for. Sent again until it is answered; its id stays. */
  z.strictObject({ k: z.literal('held'), id: Id, for: Key, shows: Shows }),
]);
export type FromDevice = z.infer<typeof FromDevice>;

/** What an instrument is told. It never hears whose limb it is. */
export const ToDevice = z.discriminatedUnion('k', [
  z.strictObject({ k: z.literal('asks'), for: Key, place: Key, words, way: z.union([z.literal(1), z.literal(-1)]).nullable() }),
  z.strictObject({ k: z.literal('zero'), at: z.enum(ZEROS) }),
  z.strictObject({ k: z.literal('answer'), id: Id, taken: z.boolean(), words }),
  z.strictObject({ k: z.literal('letGo') }),
]);
export type ToDevice = z.infer<typeof ToDevice>;

export const DeviceKind = z.enum(['device', 'phone', 'simulated']);
export type DeviceKind = z.infer<typeof DeviceKind>;

/** What a screen hears: which instruments there are, and what each of them says. */
export const ToBench = z.discriminatedUnion('k', [
  z.strictObject({ k: z.literal('here'), device: Id, kind: DeviceKind, name: z.string().max(80) }),
  z.strictObject({ k: z.literal('gone'), device: Id }),
  z.strictObject({ k: z.literal('from'), device: Id, said: FromDevice }),
  /** Another screen reads the instruments of this visit now. */
  z.strictObject({ k: z.literal('elsewhere') }),
]);
export type ToBench = z.infer<typeof ToBench>;

/** What a screen says to one of its instruments, or to all. */
export const FromBench = z.strictObject({ k: z.literal('tell'), device: Id.nullable(), said: ToDevice });
export type FromBench = z.infer<typeof FromBench>;

const SimulatedDeviceSetup = z.strictObject({
  name: z.string().min(1).max(40),
  from: z.number().min(-180).max(180),
  to: z.number().min(-360).max(360),
  scale: z.enum(['360', '180', 'quadrant']).nullable(),
  rounding: z.union([z.literal(0.1), z.literal(0.5), z.literal(1)]),
  noise: z.number().min(0).max(10),
  drift: z.number().min(-60).max(60),
  placement: z.number().min(-45).max(45),
  turned: z.number().min(-85).max(85),
});

const Movement = z.strictObject({ at: z.number().min(0).max(3600), to: share });

/** A joint that is not there with one or two inclinometers on it: also what stands in a scenario file. */
export const SimulationSetup = z.strictObject({
  format: z.literal('dial-gauge/instruments'),
  version: z.literal(1),
  seed: z.int().min(0).max(2_147_483_647),
  rate: z.int().min(5).max(60),
  speed: z.number().min(1).max(400),
  tremor: z.number().min(0).max(5),
  devices: z.array(SimulatedDeviceSetup).min(1).max(2),
  /** Movements that are made by themselves, in seconds from the connection. */
  moves: z.array(Movement).max(200),
});
export type SimulationSetup = z.infer<typeof SimulationSetup>;

/** What is done at the face of simulated instruments. */
export const FromFace = z.discriminatedUnion('k', [
  /** Moves the limb: 0 is rest, 1 the end of its range. */
  z.strictObject({ k: z.literal('move'), to: share }),
  z.strictObject({ k: z.literal('press'), device: z.int().min(0).max(1), button: z.enum(['zero', 'hold']) }),
  z.strictObject({ k: z.literal('turn'), device: z.int().min(0).max(1), turned: z.number().min(-85).max(85) }),
]);
export type FromFace = z.infer<typeof FromFace>;

/** What stands on the face of simulated instruments. */
export const ToFace = z.discriminatedUnion('k', [
  z.strictObject({ k: z.literal('face'), device: z.int(), shown: degrees, reach: z.number(), shows: Shows }),
  z.strictObject({ k: z.literal('told'), device: z.int(), said: ToDevice }),
]);
export type ToFace = z.infer<typeof ToFace>;

/** The first message of a connection says what it is. */
export const Hello = z.discriminatedUnion('as', [
  z.strictObject({ as: z.literal('bench'), visit: Id }),
  z.strictObject({ as: z.literal('simulation'), visit: Id, setup: SimulationSetup }),
  z.strictObject({ as: z.literal('phone'), key: z.string().min(20).max(80) }),
]);
export type Hello = z.infer<typeof Hello>;

const Moment = z.iso.datetime();
/** Six digits, typed by thumb. */
export const PairingCode = z
  .string()
  .trim()
  .refine((code) => /^\d{3}\s?\d{3}$/.test(code), 'is not a code; allowed: six digits, as 123 456')
  .transform((code) => code.replace(/\s/g, ''));

/** A phone becomes an inclinometer of one visit: the code is told once, lasts minutes, and is used once. */
export const PAIRINGS = {
  pair: route({
    method: 'post',
    path: '/visits/:id/pairings',
    summary: 'Make a code with which one phone becomes an inclinometer of this visit',
    params: ById,
    body: z.strictObject({ id: Id }),
    answer: z.object({ id: Id, code: z.string(), expiresAt: Moment }),
  }),
  unpair: route({
    method: 'post',
    path: '/pairings/:id/closing',
    summary: 'Let a phone go at once',
    params: ById,
    body: z.strictObject({}),
    answer: none,
  }),
  pairings: route({
    method: 'get',
    path: '/visits/:id/pairings',
    summary: 'Phones that may be an inclinometer of this visit now',
    params: ById,
    body: nothing,
    answer: z.object({ pairings: z.array(z.object({ id: Id, usedAt: Moment.nullable(), expiresAt: Moment })) }),
  }),
  redeem: route({
    method: 'post',
    path: '/phone-pairing',
    summary: 'Use a pairing code: whoever holds the key that comes back is that phone; tries are limited',
    open: true,
    params: none,
    body: z.strictObject({ code: PairingCode }),
    answer: z.object({ key: z.string(), clinic: z.string(), until: Moment }),
  }),
} as const;
