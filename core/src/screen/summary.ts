import { listed, lower, say, sayCount } from '../words/say.js';
import { wayOfItem, type ItemOutcome } from './outcome.js';
import { sidesOf } from './sides.js';
import { amountWords, faultWords, FELT_WORDS, MODIFICATION_WORDS, VIEW_WORDS } from './words.js';

/** "left knee to wall", "squat from the side": an item in a sentence. */
export function itemName({ name, side, view, with: changes }: Pick<ItemOutcome, 'name' | 'side' | 'view' | 'with'>): string {
  const sided = side === 'midline' ? lower(say(name)) : say('{side} {name}', { side: say(side), name: lower(say(name)) });
  return [
    sided,
    view ? say(VIEW_WORDS[view]) : '',
    ...changes.map((change) => say('with {change}', { change: say(MODIFICATION_WORDS[change]) })),
  ]
    .filter(Boolean)
    .join(' ');
}

/** What makes it short, briefly: a figure, the part of a circle, the faults, where it is felt. */
export function whyShort({ value, unit, faults, reasons }: ItemOutcome): string {
  const felt = reasons.find((reason) => reason.kind === 'felt');
  const circle = reasons.find((reason) => reason.kind === 'circle');
  const said = [
    value !== null && unit !== null ? amountWords(value, unit) : '',
    circle && circle.kind === 'circle' && circle.sector ? say('cut off from {from} to {to} o’clock', { ...circle.sector }) : '',
    ...faults.map(faultWords),
    felt && felt.kind === 'felt' && felt.wrong.length > 0
      ? say('felt in the {where}', { where: listed(felt.wrong.map((m) => say(FELT_WORDS[m]))) })
      : '',
  ].filter(Boolean);
  return said.join(', ');
}

const named = (all: readonly ItemOutcome[]): string =>
  listed(all.map((one) => (whyShort(one) ? `${itemName(one)} (${whyShort(one)})` : itemName(one))));

/** The screens of a visit in plain words, a sentence each: what meets, what is short, what hurts, front and back, what changed. */
export function screenSummary(outcomes: readonly ItemOutcome[]): string[] {
  if (outcomes.length === 0) return [];
  const of = (quality: ItemOutcome['quality']) => outcomes.filter((one) => one.quality === quality);
  const [short, silent] = [of('short'), of('not judged')];
  const hurts = outcomes.filter(({ pain }) => pain !== null && pain > 0);
  const working = short.filter((one) => !hurts.includes(one));
  const chains = (['front', 'back'] as const).map((chain) => ({ chain, all: outcomes.filter((one) => one.chain === chain) }));
  const differ = differences(outcomes);
  const changed = (change: 'better' | 'worse') => outcomes.filter(({ before }) => before?.change === change);
  return [
    sayCount(outcomes.length, 'Screened: {count} item, {meets} meets.', 'Screened: {count} items, {meets} meet.', {
      meets: of('meets').length,
    }),
    working.length > 0 ? say('Short on the screen: {which}.', { which: named(working) }) : '',
    hurts.length > 0
      ? say('Hurts on the screen, to be looked at before it is worked on: {which}.', {
          which: listed(hurts.map((one) => `${itemName(one)} (${one.pain} ${say('of')} 10${one.painWhere ? `, ${one.painWhere}` : ''})`)),
        })
      : '',
    differ.length > 0 ? say('The sides differ by more than error: {which}.', { which: listed(differ) }) : '',
    ...chains.filter(({ all }) => all.length > 0).map(({ chain, all }) => chainWords(chain, all)),
    changed('better').length > 0
      ? say('Better than last time on the screen: {which}.', { which: listed(changed('better').map(itemName)) })
      : '',
    changed('worse').length > 0
      ? say('Worse than last time on the screen: {which}.', { which: listed(changed('worse').map(itemName)) })
      : '',
    silent.length > 0 ? say('Not judged on the screen: {which}.', { which: listed([...new Set(silent.map(itemName))]) }) : '',
  ].filter(Boolean);
}

/** "knee to wall (right 3 cm more)": of items with an amount on both sides. */
function differences(outcomes: readonly ItemOutcome[]): string[] {
  return outcomes.flatMap((left) => {
    const right = outcomes.find((other) => other.side === 'right' && wayOfItem(other) === wayOfItem(left));
    const sides = left.side === 'left' ? sidesOf(left, right) : null;
    if (!sides?.real) return [];
    return say(left.threshold?.at === 'most' ? '{name} ({side} {amount} more left over)' : '{name} ({side} {amount} more)', {
      name: itemName({ ...left, side: 'midline' }),
      side: sides.difference > 0 ? say('left') : say('right'),
      amount: amountWords(Math.round(Math.abs(sides.difference) * 10) / 10, left.unit!),
    });
  });
}

/** "Front: left 1 of 3 short, right 0 of 3; the left side gives more." */
function chainWords(chain: 'front' | 'back', all: readonly ItemOutcome[]): string {
  const sides = (['left', 'right'] as const).flatMap((side) => {
    const own = all.filter((one) => one.side === side && one.quality !== 'not judged');
    return own.length > 0 ? [{ side, short: own.filter(({ quality }) => quality === 'short').length, of: own.length }] : [];
  });
  if (sides.length === 0) return '';
  const counts = sides.map(({ side, short, of }) => say('{side} {short} of {of} short', { side: say(side), short, of })).join(', ');
  const [left, right] = sides;
  const which = left && right && left.short !== right.short ? (left.short > right.short ? left.side : right.side) : null;
  const weaker = which ? say('; the {side} side is the weaker one', { side: say(which) }) : '';
  return chain === 'front' ? say('Front: {counts}{weaker}.', { counts, weaker }) : say('Back: {counts}{weaker}.', { counts, weaker });
}
