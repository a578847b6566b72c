import { INCH, type Length } from '../units';
import type { Fineness } from './rows';

/** Standard deviations of a reading, mm: a caliper or gauge, a rule, a tape. From memory of common practice. */
const SD = { caliper: 0.03, rule: 0.1, tape: 0.25 } as const;
/** Up to this a caliper reaches, mm; what is longer is read with a tape. */
const CALIPER_REACH = 300;
/** Steps finer than this are read with a caliper, mm. */
const CALIPER_STEP = 0.2;

/** The step that a length was read to, mm: by its last decimal or the bottom of its fraction; a tenth of a millimetre where nobody typed it. */
export function stepOf({ typed }: Length): number {
  if (!typed) return 0.1;
  const unit = typed.system === 'inch' ? INCH : 1;
  const fraction = /\/\s*(\d+)/.exec(typed.text);
  if (fraction) return unit / Number(fraction[1]);
  const decimals = /[.,](\d+)/.exec(typed.text);
  return unit * 10 ** -(decimals?.[1].length ?? 0);
}

/** How finely a length was read, by its step, its size and whether a gauge sent it. */
export function finenessOf(measured: Length, gauge?: string): Fineness {
  const step = stepOf(measured);
  if (gauge !== undefined) return { sd: SD.caliper, step };
  if (measured.mm > CALIPER_REACH) return { sd: SD.tape, step };
  return { sd: step <= CALIPER_STEP ? SD.caliper : SD.rule, step };
}
