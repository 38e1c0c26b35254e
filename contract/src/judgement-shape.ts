import { RANKINGS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { Digit, Mode, Position, Side } from './ids.js';

/** One thing the numbers say, with the reason. Values in the motion's unit. */
export const FindingShape = z.object({
  kind: z.string().meta({ description: 'What it is about, as short-of-normal' }),
  severity: z.enum(['note', 'mild', 'moderate', 'marked']),
  motion: z.string(),
  side: Side,
  mode: Mode,
  position: Position,
  protocol: z.string(),
  digit: Digit.optional(),
  unit: z.string(),
  value: z.number(),
  expected: z.number().nullable().meta({ description: 'Norm, other side, passive reading or last visit; null when nothing' }),
  difference: z.number().nullable().meta({ description: 'value − expected' }),
  percentLoss: z.number().nullable(),
  timesError: z.number().nullable().meta({ description: 'The difference in multiples of the error it has to beat' }),
  agreement: z.object({ short: z.int(), of: z.int() }).catchall(z.unknown()).nullable(),
  facts: z.unknown().meta({ description: 'What this kind knows beside the figures' }),
  steps: z
    .array(z.looseObject({ step: z.string() }))
    .meta({ description: 'Readings, sources, errors and arithmetic, in order of reading' }),
  place: z.looseObject({ by: z.string() }).meta({ description: 'Which part of the rule put it where it stands' }),
  said: z
    .object({ subject: z.string(), verdict: z.string(), brief: z.string(), because: z.array(z.string()), place: z.string() })
    .optional()
    .meta({ description: 'How it read when it was signed' }),
});

/** What a visit's readings come to. */
export const JudgementShape = z.object({
  format: z.int().meta({ description: 'How it is written down' }),
  rules: z.string().meta({ description: 'Which rules judged' }),
  normSet: z.looseObject({ id: z.string(), short: z.string(), title: z.string() }),
  judgedBy: z.array(z.looseObject({ id: z.string(), short: z.string(), measurements: z.int() })),
  notJudged: z.array(z.looseObject({ key: z.string(), reason: z.string() })).meta({ description: 'What nothing is said of, and why' }),
  ranking: z.enum(RANKINGS),
  measurements: z.array(
    z.looseObject({
      key: z.string(),
      value: z.number(),
      sem: z.number(),
      mdc95: z.number(),
      errorSource: z.looseObject({ kind: z.string() }).meta({ description: 'Where the measuring error comes from' }),
      judgedBy: z.string().nullable().meta({ description: 'The set that judged it; null: not judged' }),
      norms: z.array(z.looseObject({ set: z.string() })),
    }),
  ),
  arcs: z.array(z.looseObject({})),
  findings: z.array(FindingShape),
  screens: z
    .array(z.looseObject({ screen: z.string(), item: z.string(), side: z.string(), quality: z.string(), pain: z.number().nullable() }))
    .optional()
    .meta({ description: 'What the screens of the visit came to; left out where none was run' }),
});
