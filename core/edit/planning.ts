import type { Brief, BuildDocument } from '../document';
import { fit } from '../plan';
import { carryOver } from './carry';
import type { Family } from './family';
import { splitAgain } from './split';

/** What a build's own brief gives untouched; nothing where the kit has changed so that it gives none any more. */
function plannedBefore(brief: Brief, build: BuildDocument, about: { name: string; use: string }) {
  try {
    return fit(brief, build.shop, about);
  } catch {
    return undefined;
  }
}

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
    const before = plannedBefore(build.brief, build, about) ?? planned;
    return carryOver(splitAgain(planned, build), build, splitAgain(before, build));
  },
  useShop: (build, { shop }) => ({ ...build, shop }),
};
