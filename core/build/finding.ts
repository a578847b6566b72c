import type { Edit } from './edit';
import {
  areaText,
  forceText,
  lengthText,
  massText,
  minutesText,
  pressureText,
  smallMassText,
  temperatureText,
  volumeText,
  type Display,
} from '../units';

/** A part of a message: words, or a number with its kind, set in the reader's units. */
export type Phrase =
  | string
  | { mm: number }
  | { mm2: number }
  | { mm3: number }
  | { count: number }
  | { newtons: number }
  | { mpa: number }
  | { kg: number }
  | { grams: number }
  | { celsius: number }
  | { minutes: number };

/** What can be done about a finding, and that Junta can do by itself. */
export interface Fix {
  label: string;
  edit: Edit;
}

export type Severity = 'stop' | 'warning' | 'note';

/** Something that will not work, is short, or deserves a second look: always with the numbers that say so. */
export interface Finding {
  code: string;
  /** The step it belongs to; empty for the whole build. */
  step: string;
  severity: Severity;
  message: Phrase[];
  /** The number that caused it and the limit it met; sizes in mm, counts bare. */
  numbers: Record<string, number>;
  /** Which line of the stick to ring: 0 length, 1 width, 2 thickness. */
  axis?: 0 | 1 | 2;
  /** Shown once on the step where someone could be hurt. */
  caution?: string;
  fixes: Fix[];
  /** What was played forward and does not mend it, where nothing does: so that nobody looks for it in vain. */
  tried?: string[];
}

/** One part of a message as plain text, in the reader's units. */
export function partText(part: Phrase, display: Display): string {
  if (typeof part === 'string') return part;
  if ('mm' in part) return lengthText(part.mm, display);
  if ('mm2' in part) return areaText(part.mm2, display);
  if ('mm3' in part) return volumeText(part.mm3, display);
  if ('newtons' in part) return forceText(part.newtons, display);
  if ('mpa' in part) return pressureText(part.mpa, display);
  if ('kg' in part) return massText(part.kg, display);
  if ('grams' in part) return smallMassText(part.grams, display);
  if ('celsius' in part) return temperatureText(part.celsius, display);
  if ('minutes' in part) return minutesText(part.minutes);
  return String(part.count);
}

/** A phrase as plain text. */
export const phraseText = (phrase: readonly Phrase[], display: Display): string =>
  phrase.map((part) => partText(part, display)).join('');
