/** The two systems a shop may measure in. Every length is held in millimetres; an inch is exactly 25.4 mm. */
export type LengthSystem = 'inch' | 'mm';

/** What a maker typed, kept beside the value so that it comes back exactly as entered. */
export interface Typed {
  text: string;
  system: LengthSystem;
}

/** A length in millimetres, with the text it was typed as where there is one. */
export interface Length {
  mm: number;
  typed?: Typed;
}

/** Millimetres in one inch, exact (international inch, 1959). */
export const INCH = 25.4;
