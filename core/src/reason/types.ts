import type { FindingKind } from '../finding/index.js';
import type { FaultId, Modification, PatternId, View } from '../screen/index.js';
import type { EndFeel, Mode, MotionId, Source, Unit } from '../terms.js';
import type { CandidateId } from './candidates.js';

/** A way of measuring, in a mode. */
export interface Way {
  readonly protocol: string;
  readonly mode: Mode;
}

/** An item of a screen, from a view and with what is changed about it. */
export interface ItemWay {
  readonly screen: string;
  readonly item: string;
  readonly view?: View;
  readonly with?: readonly Modification[];
}

/** Where a range is cut in two, with its unit and who says so. Between `below` and `from` nothing is said. */
export interface Cut {
  readonly below: number;
  readonly from: number;
  readonly unit: Unit;
  readonly source: Source;
}

/** What is looked at to answer a question. Where several ways will do, the first is the usual one. */
export type Look =
  /** An amount against a cut: `below` or `from`. */
  | {
      readonly look: 'value';
      readonly ways: readonly Way[];
      readonly cut: Cut;
      /** By protocol: where a way of measuring is cut elsewhere than the others. */
      readonly otherCuts?: Readonly<Record<string, Cut>>;
    }
  /** Whether the second is more than the first by so much and by more than its error: `gains` or `same`. */
  | { readonly look: 'gain'; readonly pairs: readonly (readonly [from: Way, to: Way])[]; readonly least: number; readonly source: Source }
  /** The same of an item with and without a change: `gains` or `same`. */
  | { readonly look: 'itemGain'; readonly of: ItemWay; readonly change: Modification; readonly least: number; readonly source: Source }
  /** Whether this side is weaker or less than the other by more than error: `less` or `alike`. */
  | { readonly look: 'otherSide'; readonly ways: readonly Way[]; readonly share: number; readonly source: Source }
  /** Whether a fault goes with a change: `clears` or `stays`. */
  | { readonly look: 'clears'; readonly of: ItemWay; readonly fault: readonly FaultId[]; readonly change: Modification }
  /** A fault: `seen` or `not-seen`. */
  | { readonly look: 'fault'; readonly of: readonly ItemWay[]; readonly fault: readonly FaultId[] }
  /** An item: `meets` or `short`. */
  | { readonly look: 'item'; readonly of: readonly ItemWay[] }
  /** How the end feels: the answer is the end feel. */
  | { readonly look: 'endFeel'; readonly ways: readonly Way[] }
  /** A finding of a kind: `found`. That it is not there answers nothing: perhaps nobody looked. */
  | {
      readonly look: 'finding';
      readonly kinds: readonly FindingKind[];
      readonly motions: readonly MotionId[];
      readonly mode?: Mode;
      readonly toFind: readonly Way[];
    };

export type AnswerId =
  'below' | 'from' | 'gains' | 'same' | 'less' | 'alike' | 'clears' | 'stays' | 'seen' | 'not-seen' | 'meets' | 'short' | 'found' | EndFeel;

/** What an answer says of the candidates, and what follows from it. */
export interface Answer {
  readonly answer: readonly AnswerId[];
  readonly for?: readonly CandidateId[];
  readonly against?: readonly CandidateId[];
  /** "points to …", "speaks against …": in words. */
  readonly says: string;
  readonly advice?: string;
  readonly refer?: string;
}

/** One question of a breakdown. */
export interface Question {
  readonly id: string;
  readonly asks: string;
  readonly look: Look;
  readonly answers: readonly Answer[];
  /** Asked only where another question was answered so; where several are named, any of them. */
  readonly after?: readonly { readonly question: string; readonly answers: readonly AnswerId[] }[];
}

/** Where schools differ, each by its name. */
export interface School {
  readonly about: string;
  readonly say: readonly string[];
}

/** A pattern that fell short: what could limit it, what tells that apart, and when to stop. */
export interface Breakdown {
  readonly pattern: PatternId;
  readonly name: string;
  readonly candidates: readonly CandidateId[];
  /** Of them, those that are often blamed and that nothing here points to: they can only be ruled out. */
  readonly onlyBlamed?: readonly CandidateId[];
  readonly questions: readonly Question[];
  /** Measured motions whose loss opens it. */
  readonly openedBy: readonly MotionId[];
  /** Said whatever the answers. */
  readonly advice: readonly string[];
  /** When it is no longer ours to go on. */
  readonly refer: readonly string[];
  readonly schools?: readonly School[];
  readonly source: Source;
}
