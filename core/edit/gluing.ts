import { flipPart, type GluePlan } from '../document';
import { type Family, ofGlue } from './family';
import { addAccent, addRows, swapSpare } from './rows';
import { splitGlue } from './split';

const withoutUndefined = (plan: GluePlan): GluePlan =>
  Object.fromEntries(Object.entries(plan).filter(([, value]) => value !== undefined));

/** What can be done to a glue-up: how its parts lie, how it is glued, what it is made of. */
export const gluing: Family<
  | 'flipSlice'
  | 'setRule'
  | 'layParts'
  | 'planGlue'
  | 'splitGlue'
  | 'swapSpare'
  | 'addRows'
  | 'addAccent'
  | 'setUses'
  | 'setSizes'
  | 'setPlace'
> = {
  flipSlice: (build, { step, part }) =>
    ofGlue(build, step, (glue) => (glue.turns ? { ...glue, turns: flipPart(glue.turns, part) } : glue)),
  setRule: (build, { step, rule }) => ofGlue(build, step, (glue) => ({ ...glue, turns: rule })),
  // The parts now say all that is turned; a rule would turn them again.
  layParts: (build, { step, parts }) => ofGlue(build, step, (glue) => ({ ...glue, parts, turns: undefined })),
  planGlue: (build, { step, change }) =>
    ofGlue(build, step, (glue) => ({ ...glue, plan: withoutUndefined({ ...glue.plan, ...change }) })),
  splitGlue: (build, edit) => splitGlue(build, edit.step, edit),
  swapSpare: (build, { step, piece }) => swapSpare(build, step, piece),
  addRows: (build, { step, rows }) => addRows(build, step, rows),
  addAccent: (build, { step, accent }) => addAccent(build, step, accent),
  setUses: (build, { uses }) => ({ ...build, uses }),
  setPlace: (build, { place }) => ({ ...build, place }),
  setSizes: (build, { sizes }) => ({ ...build, sizes: sizes?.length ? sizes : undefined }),
};
