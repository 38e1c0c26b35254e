import { Injectable, signal } from '@angular/core';
import {
  ASSUMED_HAND,
  DEVICE_SCALES,
  motion,
  type DeviceScale,
  type EntryUnit,
  type HandWidths,
  type Instrument,
  type Protocol,
  type Tool,
} from '@dial-gauge/core';

/** What an examiner works with, remembered on this device. */
export interface ToolSettings {
  /** What is taken instead of the usual instrument, where the protocol allows it. */
  readonly instead: Readonly<Partial<Record<Instrument, Instrument>>>;
  /** null: inclinometers are set to zero at the start. */
  readonly scale: DeviceScale | null;
  readonly hands: Tool['hands'];
  readonly length: EntryUnit & ('cm' | 'in');
  readonly force: EntryUnit & ('N' | 'lb' | 'kg');
}

const KEY = 'dial-gauge.tools';
const USUAL: ToolSettings = { instead: {}, scale: null, hands: 'two', length: 'cm', force: 'N' };
/** Typed by hand; a phone and a picture are read elsewhere. */
const NOT_BY_HAND: readonly Instrument[] = ['phone', 'picture'];

/** The instruments of the bench, and how they count. */
@Injectable({ providedIn: 'root' })
export class Tools {
  private readonly state = signal<ToolSettings>(stored());
  readonly settings = this.state.asReadonly();
  /** Of this clinic. */
  readonly hand = signal<HandWidths>(ASSUMED_HAND);

  change(change: Partial<ToolSettings>): void {
    this.state.update((settings) => ({ ...settings, ...change }));
    localStorage.setItem(KEY, JSON.stringify(this.state()));
  }

  /** What reads a protocol by hand. */
  choices({ instruments }: Protocol): readonly Instrument[] {
    return instruments.filter((instrument) => !NOT_BY_HAND.includes(instrument));
  }

  /** Takes another instrument wherever this protocol's usual one would be taken. */
  take(protocol: Protocol, instrument: Instrument): void {
    this.change({ instead: { ...this.state().instead, [protocol.instruments[0]!]: instrument } });
  }

  toolFor(protocol: Protocol, instrument = this.instrumentFor(protocol)): Tool {
    const { scale, hands, length, force } = this.state();
    const { unit } = motion(protocol.motion);
    const entry = unit === 'cm' ? length : unit === 'N' ? force : null;
    return { instrument, scale, hands, unit: entry, widths: this.hand() };
  }

  private instrumentFor(protocol: Protocol): Instrument {
    const choices = this.choices(protocol);
    const wanted = this.state().instead[protocol.instruments[0]!];
    return choices.find((instrument) => instrument === wanted) ?? choices[0] ?? protocol.instruments[0]!;
  }
}

function stored(): ToolSettings {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<ToolSettings>;
    const scale = DEVICE_SCALES.find((known) => known === kept.scale) ?? null;
    return {
      instead: typeof kept.instead === 'object' ? kept.instead : {},
      scale,
      hands: kept.hands === 'one' ? 'one' : 'two',
      length: kept.length === 'in' ? 'in' : 'cm',
      force: kept.force === 'lb' || kept.force === 'kg' ? kept.force : 'N',
    };
  } catch {
    return USUAL;
  }
}
