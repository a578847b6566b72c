import { isRefused, Refusal } from '../document';
import { fit } from '../plan';
import { carryOver } from './carry';
import type { Family } from './family';
import { splitAgain } from './split';

/** What the job is, and planning it again. */
export const planning: Family<'rename' | 'setAim' | 'replan' | 'useShop'> = {
  rename: (build, { name }) => ({ ...build, name }),
  setAim: (build, { dimension, aim }) => ({
    ...build,
    targets: build.targets.map((target, i) => (i === 0 ? { ...target, [dimension]: aim } : target)),
    brief: build.brief && { ...build.brief, [dimension]: aim },
  }),
  replan: (build, { change }) => {
    if (!build.brief) return build;
    const about = { name: build.name, use: build.use };
    const planned = fit({ ...build.brief, ...change }, build.shop, about);
    if (isRefused(planned)) throw new Refusal(planned.refused);
    // What its own brief gives untouched; the new plan where the kit has changed so that it gives none any more.
    const own = fit(build.brief, build.shop, about);
    const before = isRefused(own) ? planned : own;
    return carryOver(splitAgain(planned, build), build, splitAgain(before, build));
  },
  useShop: (build, { shop }) => ({ ...build, shop }),
};
