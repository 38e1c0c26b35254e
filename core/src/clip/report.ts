import type { Block, Report } from '../report/index.js';
import { FAULTS, SCREENS, type FaultId, type Screen, type View } from '../screen/index.js';
import type { IsoDate } from '../terms.js';
import { formatWhole } from '../words/figures.js';
import { dayWords, lower, say, upper } from '../words/say.js';
import { inTime, markedItem, momentWords } from './check.js';
import type { ClipMark, ClipReview, Sureness } from './types.js';

/** A still that goes out with a page. */
export interface ClipStill {
  /** JPEG, base64. */
  readonly jpeg: string;
  readonly width: number;
  readonly height: number;
}

export interface ClipFacts {
  readonly clinic: string;
  readonly givenName: string;
  readonly by: string;
  readonly on: IsoDate;
  readonly review: ClipReview;
  readonly stills: ReadonlyMap<string, ClipStill>;
}

const SURE_WORDS: Readonly<Record<Sureness, string>> = {
  sure: 'We are sure of this.',
  likely: 'We are fairly sure of this.',
  unsure: 'From this side we can not be sure.',
};
const VIEW_WORDS: Readonly<Record<View, string>> = { front: 'the front', side: 'the side', behind: 'behind' };

/** What a mark shows, in its own words where it has some. */
export function markWords(mark: ClipMark, screens: readonly Screen[] = SCREENS): string {
  const item = markedItem(mark, screens)?.name ?? '';
  const fault = mark.shows?.fault ? say(FAULTS[mark.shows.fault]) : '';
  const named = fault && item ? say('{item}: {fault}', { item: say(item), fault }) : say(item);
  return [named, mark.words.trim()].filter(Boolean).join(named && mark.words.trim() ? '. ' : '');
}

const sentence = (words: string): string => (/[.!?]$/.test(words) ? upper(words) : `${upper(words)}.`);

/**
 * A short page for whoever sent a clip: what goes well first, at most three
 * things to work on, and what could not be seen, by hand and by the view.
 */
export function clipReport({ clinic, givenName, by, on, review, stills }: ClipFacts, screens: readonly Screen[] = SCREENS): Report {
  const marks = inTime(review.marks);
  const of = (tells: ClipMark['tells']) => marks.filter((mark) => mark.tells === tells);
  const [well, work] = [of('strength'), of('work')];
  return {
    kind: 'clip',
    title: say('What we saw in your clip'),
    subtitle: say('For {name}. {clinic}, {day}', { name: givenName, clinic, day: dayWords(on) }),
    foot: say('Looked over by {by}. A clip is no exam: it says nothing of pain or strength.', { by }),
    draft: false,
    large: true,
    blocks: [
      { kind: 'heading', text: say('What goes well') },
      ...(well.length > 0 ? well.flatMap((mark) => told(mark, stills, screens)) : [quiet(say('We marked nothing here this time.'))]),
      { kind: 'heading', text: say('What to work on') },
      ...(work.length > 0
        ? work.flatMap((mark) => told(mark, stills, screens))
        : [quiet(say('We marked nothing here. That holds for what this clip shows, and for no more.'))]),
      { kind: 'heading', text: say('What we could not see') },
      { kind: 'list', items: [...of('unseen').map((mark) => sentence(markWords(mark, screens))), ...unseen(review, screens)] },
      {
        kind: 'paragraph',
        tone: 'warning',
        text: say('Stop if it hurts. Call us if a joint swells up, if an arm or leg goes numb or weak, or if you feel ill.'),
      },
    ],
  };
}

const quiet = (text: string): Block => ({ kind: 'paragraph', tone: 'quiet', text });

function told(mark: ClipMark, stills: ReadonlyMap<string, ClipStill>, screens: readonly Screen[]): Block[] {
  const words = markWords(mark, screens);
  const side = mark.side === 'midline' ? '' : say('On your {side} side.', { side: say(mark.side) });
  const angles = mark.angles.map(({ label, degrees, error }) =>
    say('{label}: about {degrees}°, give or take {error}°.', {
      label: upper(say(label)),
      degrees: formatWhole(degrees),
      error: formatWhole(Math.max(1, Math.ceil(error))),
    }),
  );
  const at = say('At {moment} of your clip.', { moment: momentWords(mark.t) });
  const still = mark.still === null ? undefined : stills.get(mark.still);
  return [
    { kind: 'paragraph', tone: 'strong', text: sentence(words) },
    { kind: 'paragraph', text: [side, ...angles, say(SURE_WORDS[mark.sure]), at].filter(Boolean).join(' ') },
    ...(still
      ? [
          {
            kind: 'picture',
            alt: say('A still of your clip at {moment}: {words}', { moment: momentWords(mark.t), words }),
            ...still,
          } as const,
        ]
      : []),
  ];
}

/** What no clip shows from this view: faults of the items that were looked at, which are seen from elsewhere alone. */
function unseen({ view, marks }: ClipReview, screens: readonly Screen[]): string[] {
  const items = [...new Set(marks.flatMap((mark) => markedItem(mark, screens) ?? []))];
  const elsewhere = items.flatMap(({ faults }) => faults.filter(({ views }) => views.length > 0 && !views.includes(view)));
  const lines = (['front', 'side', 'behind'] as const).flatMap((from) => {
    const own = [...new Set(elsewhere.filter(({ views }) => views.includes(from)).map(({ id }) => FAULTS[id as FaultId]))];
    return own.length === 0
      ? []
      : [
          say('For this we would need a clip from {view}: {faults}.', {
            view: say(VIEW_WORDS[from]),
            faults: own.map((one) => lower(say(one))).join(', '),
          }),
        ];
  });
  return [...lines, say('How it feels, and how strong you are: no clip shows that.')];
}
