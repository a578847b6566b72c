import type { Worked } from '../../core/worked';

/** Which numbers are explained. The code of the formulas comes with the window: until it is opened nothing of it is loaded. */
export type HowOf = (worked: typeof import('../../core/worked')) => (Worked | undefined)[];
