import type { Act } from './roles.js';
import type { Route } from './route.js';
import { RESOURCES } from './routes.js';

type Resources = typeof RESOURCES;

/** What every route is, as something that is done: who may do it stands in `ALLOWED`. The compiler wants a line for each. */
export const MAY: { readonly [R in keyof Resources]: { readonly [N in keyof Resources[R]]: Act } } = {
  account: {
    signIn: 'door',
    session: 'self',
    signOut: 'self',
    sessions: 'self',
    endOtherSessions: 'self',
    endSession: 'self',
    prove: 'self',
    account: 'self',
    passwordLinkSeen: 'self',
    changePassword: 'self',
    offerSecondFactor: 'self',
    confirmSecondFactor: 'self',
    newRecoveryCodes: 'self',
    removeSecondFactor: 'self',
  },
  staff: {
    found: 'door',
    openLink: 'door',
    join: 'door',
    staff: 'staff',
    invite: 'staff',
    withdrawLink: 'staff',
    setRole: 'staff',
    endAccount: 'staff',
    reopenAccount: 'staff',
    resetPassword: 'staff',
    askSecondFactor: 'staff',
    dropSecondFactor: 'staff',
  },
  audit: { audit: 'audit' },
  patients: {
    caseload: 'look',
    queueCounts: 'look',
    messagesSeen: 'measure',
    addPatient: 'screen',
    patient: 'look',
    changePatient: 'screen',
    personChanges: 'look',
    openEpisode: 'screen',
    discharge: 'measure',
    reopen: 'measure',
    merge: 'measure',
    undoMerge: 'measure',
  },
  persons: { wholeRecord: 'export', erasure: 'erase', erase: 'erase' },
  episodes: { setIntake: 'measure' },
  stories: { story: 'look' },
  visits: { startVisit: 'screen', visit: 'look', setCautions: 'measure', setPlan: 'measure' },
  atHand: { today: 'look' },
  readings: { holdReading: 'measure', correctReading: 'measure', withdrawReading: 'measure', remark: 'measure' },
  judgement: {
    judgement: 'look',
    setSummary: 'measure',
    sign: 'sign',
    amend: 'sign',
    countersign: 'countersign',
    signedCopy: 'look',
    takeLate: 'measure',
    dismissLate: 'measure',
  },
  goals: { setGoal: 'measure' },
  drills: { drills: 'look', keepDrill: 'measure', keepDrillFile: 'measure', drillFile: 'look' },
  programs: { programs: 'look', giveProgram: 'measure' },
  pairings: { pair: 'measure', unpair: 'measure', pairings: 'look', redeem: 'door' },
  clips: {
    clips: 'look',
    keepReview: 'measure',
    clipPage: 'look',
    clipFile: 'send',
    attachStill: 'measure',
    still: 'look',
    removeStill: 'measure',
  },
  practice: { practice: 'train', startRound: 'train', round: 'train', answerTask: 'train', studyOfRound: 'measure' },
  patientPages: { patientPages: 'look', makePage: 'measure', revokePage: 'measure', openPage: 'door', ownPage: 'door', logDay: 'door' },
  past: { readSheet: 'measure', past: 'look', bringIn: 'measure', undoPast: 'measure' },
  progress: { progress: 'look' },
  reports: { report: 'look', reportFile: 'send', exportVisit: 'send', allReadings: 'export' },
  retests: { retests: 'look', startRetest: 'measure', noteDrill: 'measure', readMarker: 'measure', finishRetest: 'measure' },
  screens: {
    screens: 'look',
    planScreens: 'screen',
    holdScreenTry: 'screen',
    correctScreenTry: 'screen',
    clinicScreens: 'look',
    setScreens: 'settle',
  },
  takeovers: { takeOver: 'measure' },
  norms: { norms: 'look', setNorms: 'settle', addNormSet: 'settle', exportNormSet: 'look', removeNormSet: 'settle' },
  valueChecks: { addValueChecks: 'settle', exportValueChecks: 'look', importValueChecks: 'settle' },
  cohort: { cohort: 'look', countAnew: 'settle', makeNormSet: 'settle', cohortFile: 'export' },
  reliability: { studies: 'look', startStudy: 'measure', readStudy: 'measure', adoptError: 'settle', dropError: 'settle' },
  clinic: { clinic: 'look', setHand: 'measure', addExamSet: 'measure', removeExamSet: 'measure' },
};

const BY_ROUTE = new Map<Route, Act>(
  Object.entries(RESOURCES).flatMap(([resource, routes]) =>
    Object.entries(routes as Record<string, Route>).map(
      ([name, route]) => [route, (MAY as Record<string, Record<string, Act>>)[resource]![name]!] as const,
    ),
  ),
);

/** What it is that a route does. @throws where it is no route of the contract */
export function actOf(route: Route): Act {
  const act = BY_ROUTE.get(route);
  if (!act) throw new Error(`${route.method} ${route.path} has no line in MAY`);
  return act;
}
