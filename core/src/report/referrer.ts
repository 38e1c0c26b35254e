import { FINDING_KINDS, kindOf, saidOf, stageOf, type Finding } from '../finding/index.js';
import { doseWords, drillSideWords, findDrill, forbiddenDrill } from '../program/index.js';
import { instrumentWord } from '../words/instruments.js';
import { dayWords, listed, say, sayCount } from '../words/say.js';
import { CHANGE_HEAD, changeRow, limitLines, more, operationLine, telling, whenOf } from './parts.js';
import type { Block, Report, ReportFacts, ReportKind } from './types.js';

/** So many of each fit on one page. */
const MOST_FINDINGS = 7;
const MOST_CHANGES = 6;
const MOST_LIMITS = 6;

/** One page for who sent the person: who and why, what was measured how, findings, change, limits, plan, signature. */
export const referrerReport = (facts: ReportFacts): Report =>
  clinicalPage('referrer', '{given} {family}: report of {day}', facts, [
    ...findings(facts),
    ...changes(facts),
    ...limits(facts),
    ...plan(facts),
  ]);

/** A page between people of the trade: whose it is and what it rests on first, who signed it last. */
export function clinicalPage(kind: ReportKind, title: string, facts: ReportFacts, blocks: readonly Block[]): Report {
  const { clinic, person, assessedOn, signed } = facts;
  return {
    kind,
    title: say(title, { given: person.givenName, family: person.familyName, day: dayWords(assessedOn) }),
    subtitle: clinic,
    foot: footOf(facts),
    draft: signed === null,
    large: false,
    blocks: [
      { kind: 'facts', rows: about(facts) },
      { kind: 'heading', text: say('In short') },
      ...facts.summary
        .split('\n')
        .filter(Boolean)
        .map((text): Block => ({ kind: 'paragraph', text })),
      ...blocks,
      signature(facts),
    ],
  };
}

/** Whose page it is, on every page of it. */
export const footOf = ({ clinic, person, assessedOn }: ReportFacts): string =>
  `${clinic} · ${person.givenName} ${person.familyName}, ${say('born {day}', { day: dayWords(person.birthDate) })} · ${dayWords(assessedOn)}`;

function about(facts: ReportFacts): (readonly [string, string])[] {
  const { person, complaint, wanted, assessedOn, examiner, visitNumber, judgement } = facts;
  const instruments = [...new Set(judgement.measurements.map(({ measurement }) => instrumentWord(measurement.instrument)))];
  const screens = judgement.screens?.length ?? 0;
  const how = [
    ...(judgement.measurements.length > 0
      ? [
          sayCount(judgement.measurements.length, '{count} measurement by {with}', '{count} measurements by {with}', {
            with: listed(instruments),
          }),
          say('differences count where they are past the 95 % measuring error'),
        ]
      : []),
    ...(screens > 0 ? [sayCount(screens, '{count} item of movement screens', '{count} items of movement screens')] : []),
  ];
  const operation = operationLine(facts);
  return [
    [
      say('Person'),
      `${person.givenName} ${person.familyName}, ${say('born {day}', { day: dayWords(person.birthDate) })}${person.occupation ? `, ${person.occupation}` : ''}`,
    ],
    [say('Came with'), complaint],
    ...(wanted ? [[say('Wants back'), wanted] as const] : []),
    ...(operation ? [[say('Operation'), operation] as const] : []),
    [say('Measured'), say('{day}, visit {number}, by {examiner}', { day: dayWords(assessedOn), number: visitNumber, examiner })],
    ...(how.length > 0 ? [[say('How'), how.join('; ')] as const] : []),
  ];
}

const isLoss = (finding: Finding): boolean => FINDING_KINDS.includes(finding.kind) && stageOf(finding.kind) === 'loss';

function findings({ judgement }: ReportFacts): Block[] {
  const { notJudged } = judgement;
  // What did not change past error stands in the table of change.
  const all = judgement.findings.filter(({ kind }) => !kindOf(kind)?.aside);
  const shown = all.slice(0, MOST_FINDINGS);
  if (judgement.measurements.length === 0) return [];
  return [
    { kind: 'heading', text: say('Findings') },
    ...(shown.length === 0
      ? [{ kind: 'paragraph', text: say('None past measuring error, of what was judged.') } as const]
      : [
          {
            kind: 'table',
            caption: say('What was found, first what comes first'),
            head: [say('About'), say('Found'), say('How much')],
            rows: shown.map((finding) => {
              const { subject, verdict } = saidOf(finding);
              return [subject, verdict, isLoss(finding) ? say(finding.severity) : '–'];
            }),
            figures: [],
          } as const,
        ]),
    ...more(all.length - shown.length),
    ...(notJudged.length > 0
      ? [
          {
            kind: 'paragraph',
            tone: 'quiet',
            text: sayCount(
              notJudged.length,
              '{count} measurement was not judged against a norm.',
              '{count} measurements were not judged against a norm.',
            ),
          } as const,
        ]
      : []),
  ];
}

function changes(facts: ReportFacts): Block[] {
  const all = telling(facts.series);
  if (all.length === 0) return [];
  const when = whenOf(facts);
  return [
    { kind: 'heading', text: say('Change') },
    {
      kind: 'table',
      caption: say('Since the first and the last visit; the usual course is what others come to, never a promise'),
      head: CHANGE_HEAD.map((word) => say(word)),
      rows: all.slice(0, MOST_CHANGES).map((series) => changeRow(series, when)),
      figures: [1, 2, 3],
    },
    ...more(all.length - MOST_CHANGES),
  ];
}

function limits(facts: ReportFacts): Block[] {
  const lines = limitLines(facts);
  if (lines.length === 0) return [];
  return [
    { kind: 'heading', text: say('Limits kept') },
    { kind: 'list', items: lines.slice(0, MOST_LIMITS) },
    ...more(lines.length - MOST_LIMITS),
  ];
}

export function plan({ program, limits }: ReportFacts): Block[] {
  if (!program)
    return [
      { kind: 'heading', text: say('Plan') },
      { kind: 'paragraph', text: say('No programme was given at this visit.') },
    ];
  const { drills, known, recheckOn, note, by, on } = program;
  return [
    { kind: 'heading', text: say('Plan') },
    { kind: 'paragraph', tone: 'quiet', text: say('Given on {day} by {who}.', { day: dayWords(on), who: by }) },
    ...(drills.length > 0
      ? [
          {
            kind: 'list',
            items: drills.map(({ drill, side, dose }) => {
              const of = findDrill(drill, known);
              const isOut = of !== undefined && forbiddenDrill(of, side, limits) !== null;
              const out = isOut ? say('left out: a limit that holds now speaks against it') : '';
              return [of?.name ?? drill, drillSideWords(side), doseWords(dose), out].filter(Boolean).join(', ');
            }),
          } as const,
        ]
      : []),
    { kind: 'paragraph', text: [say('Looked at again on {day}.', { day: dayWords(recheckOn) }), note].filter(Boolean).join(' ') },
  ];
}

/** Who answers for it; or that nobody does yet. */
function signature({ signed }: ReportFacts): Block {
  if (!signed) return { kind: 'paragraph', tone: 'warning', text: say('Draft. Nobody has signed this visit: it may change.') };
  const again = signed.number > 1 ? say(', amended') : '';
  const { by, on, countersigned } = signed;
  const said = [
    say('Signed by {who} on {day}{again}.', { who: by, day: dayWords(on), again }),
    ...(countersigned ? [say('Countersigned by {who} on {day}.', { who: countersigned.by, day: dayWords(countersigned.on) })] : []),
  ];
  return { kind: 'paragraph', text: said.join(' ') };
}
