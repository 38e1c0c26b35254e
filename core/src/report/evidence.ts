import { endFigure, formatNumber, suffixOf } from '../words/figures.js';
import { motion } from '../catalogue/index.js';
import { errorSourceWords } from '../error/source.js';
import { notJudgedWords, saidOf } from '../finding/index.js';
import { itemName, whyShort } from '../screen/index.js';
import { instrumentWord } from '../words/instruments.js';
import { say } from '../words/say.js';
import { CHANGE_HEAD, changeRow, limitLines, measuredName, telling, wayLabel, whenOf } from './parts.js';
import { clinicalPage, plan } from './referrer.js';
import type { Block, Report, ReportFacts } from './types.js';

/** Everything: each reading with its error and what it was held against, each finding with its reasons. */
export const evidenceReport = (facts: ReportFacts): Report =>
  clinicalPage('evidence', '{given} {family}: all evidence of {day}', facts, [
    ...findings(facts),
    ...readings(facts),
    ...notJudged(facts),
    ...screens(facts),
    ...changes(facts),
    ...limits(facts),
    ...plan(facts),
    ...rules(facts),
    ...errors(facts),
  ]);

function rules({ judgement }: ReportFacts): Block[] {
  const sets = judgement.judgedBy.map(({ short }) => short).join(', ') || judgement.normSet.short;
  return [
    { kind: 'heading', text: say('By which rules') },
    { kind: 'paragraph', tone: 'quiet', text: say('Rules {rules}; norm sets asked: {sets}.', { rules: judgement.rules, sets }) },
  ];
}

function findings({ judgement }: ReportFacts): Block[] {
  if (judgement.findings.length === 0) return [];
  return [
    { kind: 'heading', text: say('Findings and why') },
    ...judgement.findings.flatMap((finding): Block[] => {
      const { subject, verdict, because } = saidOf(finding);
      return [
        { kind: 'paragraph', tone: 'strong', text: `${subject}: ${verdict}.` },
        { kind: 'list', items: because },
      ];
    }),
  ];
}

function readings({ judgement }: ReportFacts): Block[] {
  if (judgement.measurements.length === 0) return [];
  return [
    { kind: 'heading', text: say('Readings') },
    {
      kind: 'table',
      caption: say('Every measurement: how, its trials, its value, the 95 % error of a change, and the norm that judged it'),
      head: ['Measurement', 'How', 'Trials', 'Value', 'Error', 'Norm', 'Pain'].map((word) => say(word)),
      rows: judgement.measurements.map(({ measurement: m, ends, value, mdc95, norms, judgedBy }) => {
        const known = motion(m.motion);
        const figure = (one: number) => `${endFigure(one, known)}${suffixOf(known.unit)}`;
        const by = norms.find((norm) => norm.set === judgedBy && norm.comparable);
        return [
          measuredName(m),
          `${wayLabel(m)}, ${instrumentWord(m.instrument)}`,
          ends.map((end) => endFigure(end, known)).join(', '),
          figure(value),
          `${formatNumber(mdc95)}${suffixOf(known.unit)}`,
          by ? `${formatNumber(by.expected)}${suffixOf(known.unit)} (${by.setName})` : say('not judged'),
          m.pain === undefined ? say('not asked') : [formatNumber(m.pain), m.painWhere].filter(Boolean).join(', '),
        ];
      }),
      figures: [2, 3, 4],
    },
  ];
}

function notJudged({ judgement }: ReportFacts): Block[] {
  if (judgement.notJudged.length === 0) return [];
  return [
    { kind: 'heading', text: say('Not judged against norms') },
    { kind: 'list', items: judgement.notJudged.map((of) => `${measuredName(of)}: ${notJudgedWords(of, of.motion)}`) },
  ];
}

function screens({ judgement }: ReportFacts): Block[] {
  const outcomes = judgement.screens ?? [];
  if (outcomes.length === 0) return [];
  return [
    { kind: 'heading', text: say('Movement screens') },
    {
      kind: 'table',
      caption: say('Quality and pain apart; what was not judged is told as such'),
      head: ['Item', 'Quality', 'Why', 'Pain'].map((word) => say(word)),
      rows: outcomes.map((one) => [
        itemName(one),
        say(one.quality),
        one.quality === 'short' ? whyShort(one) : '–',
        one.pain === null ? say('not asked') : [formatNumber(one.pain), one.painWhere].filter(Boolean).join(', '),
      ]),
      figures: [],
    },
  ];
}

function changes(facts: ReportFacts): Block[] {
  const all = telling(facts.series);
  const when = whenOf(facts);
  return all.length === 0
    ? []
    : [
        { kind: 'heading', text: say('Change') },
        {
          kind: 'table',
          caption: say('Since the first and the last visit'),
          head: CHANGE_HEAD.map((word) => say(word)),
          rows: all.map((series) => changeRow(series, when)),
          figures: [1, 2, 3],
        },
      ];
}

function limits(facts: ReportFacts): Block[] {
  const lines = limitLines(facts);
  return lines.length === 0
    ? []
    : [
        { kind: 'heading', text: say('Limits kept') },
        { kind: 'list', items: lines },
      ];
}

/** Where each error comes from, once. */
function errors({ judgement }: ReportFacts): Block[] {
  const sources = [...new Set(judgement.measurements.map(({ errorSource }) => errorSourceWords(errorSource)))];
  return sources.length === 0
    ? []
    : [{ kind: 'paragraph', tone: 'quiet', text: say('Measuring error: {sources}', { sources: sources.join('; ') }) }];
}
