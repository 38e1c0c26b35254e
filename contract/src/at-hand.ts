import * as z from 'zod';
import { Day } from './ids.js';
import { PatientRecord } from './patients.js';
import { none, nothing, route } from './route.js';
import { ScreensView } from './screens.js';
import { VisitRecord } from './visits.js';

/** So many visits and so many people are taken along at the most. */
export const AT_HAND_MOST = 20;

/** What a device takes along, so that it is there without a network. */
export const AtHandView = z.object({ visits: z.array(VisitRecord), screens: z.array(ScreensView), patients: z.array(PatientRecord) });
export type AtHandView = z.infer<typeof AtHandView>;

/** What whoever is signed in needs today, in one answer: kept by their device until they sign out. */
export const AT_HAND = {
  today: route({
    method: 'get',
    path: '/at-hand',
    summary: 'Visits of today, the caller’s first, and who is due with them: to be kept on the device until they sign out',
    params: none,
    query: z.strictObject({ day: Day }),
    body: nothing,
    answer: AtHandView,
  }),
} as const;
