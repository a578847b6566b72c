import type { PatternId } from '../../document';
import { basket } from './basket';
import { blocks } from './blocks';
import { bricks } from './bricks';
import { butcher } from './butcher';
import { centred } from './centred';
import { chevron } from './chevron';
import { corner } from './corner';
import { cubes } from './cubes';
import { endGrain } from './endGrain';
import { framed } from './framed';
import { graded } from './graded';
import { lamination, leg } from './lamination';
import { match } from './match';
import { mosaic } from './mosaic';
import { ownRule } from './ownRule';
import { panel } from './panel';
import type { Pattern } from './pattern';
import { skinned } from './skinned';
import { stagger } from './stagger';
import { stepped } from './stepped';

/** All patterns, in the order they are offered. */
export const PATTERNS: readonly Pattern[] = [
  panel,
  graded,
  centred,
  butcher,
  match,
  ownRule,
  skinned,
  lamination,
  leg,
  endGrain,
  stagger,
  bricks,
  basket,
  stepped,
  mosaic,
  chevron,
  cubes,
  blocks,
  framed,
  corner,
];

/** A pattern by its id. */
export function patternOf(id: PatternId): Pattern {
  const found = PATTERNS.find((pattern) => pattern.id === id);
  if (!found) throw new Error(`There is no pattern “${id}”.`);
  return found;
}
