import type { Edit } from './edit';
import { areaText, lengthText, volumeText, type Display } from '../units';

/** A part of a message: words, or a number with its kind, set in the reader's units. */
export type Phrase = string | { mm: number } | { mm2: number } | { mm3: number } | { count: number };

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
}

/** A phrase as plain text. */
export function phraseText(phrase: readonly Phrase[], display: Display): string {
  return phrase
    .map((part) => {
      if (typeof part === 'string') return part;
      if ('mm' in part) return lengthText(part.mm, display);
      if ('mm2' in part) return areaText(part.mm2, display);
      if ('mm3' in part) return volumeText(part.mm3, display);
      return String(part.count);
    })
    .join('');
}
