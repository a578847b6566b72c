import type { Look } from './looks';

/** Everything that stays the same while one cell is drawn. */
export interface Sample {
  look: Look;
  /** Seed of the log's figure and of the board's own shade. */
  seed: number;
  shade: number;
  /** The face's normal in the log's frame. */
  nx: number;
  ny: number;
  nz: number;
  /** Size of a pixel in mm. */
  px: number;
  /** Added to the colour: how far this board lies from its wood's usual one, OKLab. */
  tone?: readonly [number, number, number];
}
