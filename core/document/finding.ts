import type { DimensionName } from './targets';
import {
  areaText,
  type Display,
  finer,
  forceText,
  inputText,
  type Length,
  lengthText,
  lengthUnit,
  massText,
  fluidText,
  minutesText,
  offText,
  pressureText,
  smallMassText,
  shownMm,
  temperatureText,
  volumeText,
  woodText,
} from '../units';
import type { Edit } from './edit';

/** A part of a message: words, or a number with its kind, set in the reader's units; a length that was typed, as typed. */
export type Phrase =
  | string
  | Length
  | { mm2: number }
  | { mm3: number }
  | { boardFeet: number }
  | { count: number }
  | { newtons: number }
  | { mpa: number }
  | { kg: number }
  | { grams: number }
  | { celsius: number }
  | { minutes: number }
  /** A length so small that thousandths count, mm; and a volume of what is poured. */
  | { fine: number }
  | { ml: number };

/** What can be done about a finding, and that Junta can do by itself. */
export interface Fix {
  label: string;
  edit: Edit;
  /** What of a hand's work it cannot keep, by name. */
  drops?: string[];
}

export type Severity = 'stop' | 'warning' | 'note';

/**
 * What findings there are, by their codes. Open on purpose: each is declared, in words, where it is raised, and
 * docs/findings.md is made of these declarations. A code nobody declared does not compile.
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled where findings are raised
export interface FindingCodes {}
export type FindingCode = keyof FindingCodes;

/** Something that will not work, is short, or deserves a second look: always with the numbers that say so. */
export interface Finding {
  code: FindingCode;
  /** The step it belongs to; empty for the whole build. */
  step: string;
  severity: Severity;
  message: Phrase[];
  /** The number that caused it and the limit it met; sizes in mm, counts bare. */
  numbers: Record<string, number>;
  /** Which line of the stick to ring. */
  dimension?: DimensionName;
  /** Shown once on the step where someone could be hurt. */
  caution?: string;
  fixes: Fix[];
  /** What was played forward and does not mend it, where nothing does: so that nobody looks for it in vain. */
  tried?: string[];
}

/** One part of a message as plain text, in the reader's units. */
export function partText(part: Phrase, display: Display): string {
  if (typeof part === 'string') return part;
  if ('mm' in part) return `${inputText(part, display)} ${lengthUnit(display)}`;
  if ('mm2' in part) return areaText(part.mm2, display);
  if ('mm3' in part) return volumeText(part.mm3, display);
  if ('boardFeet' in part) return woodText(part.boardFeet, display);
  if ('newtons' in part) return forceText(part.newtons, display);
  if ('mpa' in part) return pressureText(part.mpa, display);
  if ('kg' in part) return massText(part.kg, display);
  if ('grams' in part) return smallMassText(part.grams, display);
  if ('celsius' in part) return temperatureText(part.celsius, display);
  if ('minutes' in part) return minutesText(part.minutes);
  if ('fine' in part) return `${offText(part.fine, display)} ${lengthUnit(display)}`;
  if ('ml' in part) return fluidText(part.ml, display);
  return String(part.count);
}

/** A size that is shown more than this share off says another thing: 0.05 is not 0.1. */
const MOST_OFF = 0.15;
/** Sizes that differ by less are one size to a reader, mm. */
const ONE_SIZE_MM = 0.002;

/**
 * How the sizes of one message are shown: as the shop reads them, or all of them in decimals where something would be
 * shown as nothing or as something else, or two sizes that differ as one. “Comes out at 3/8, asked for 3/8” says nothing.
 */
export function displayOf(phrase: readonly Phrase[], display: Display): Display {
  const sizes = phrase.filter((part): part is Length => typeof part === 'object' && 'mm' in part);
  const text = ({ mm }: Length) => lengthText(mm, display);
  const lost = sizes.some(
    (size) =>
      size.typed?.system !== display.system &&
      Math.abs(size.mm) > 1e-9 &&
      Math.abs(shownMm(size.mm, display) - size.mm) > MOST_OFF * Math.abs(size.mm),
  );
  const alike = sizes.some((a) =>
    sizes.some((b) => Math.abs(a.mm - b.mm) > ONE_SIZE_MM && text(a) === text(b)),
  );
  return lost || alike ? finer(display) : display;
}

/** A phrase as plain text. */
export function phraseText(phrase: readonly Phrase[], display: Display): string {
  const shown = displayOf(phrase, display);
  return phrase.map((part) => partText(part, shown)).join('');
}
