import {
  type Brief,
  type BuildDocument,
  DIMENSIONS,
  duplicateOf,
  type Edit,
  isRefused,
  type Refused,
  type Slot,
} from '../document';
import { applyEdit, lostBy } from '../edit';
import type { ShopSnapshot } from '../kit';
import { type ChangeLine, changesBetween } from './changes';

/** A job that makes a piece again, with all that is different in it, a line each, and what could not be kept. */
export interface Another {
  build: BuildDocument;
  differences: ChangeLine[];
  lost: string[];
}

/** The sizes that it is to be made in; those of the first one where missing. */
export type OtherSizes = Partial<Pick<Brief, 'length' | 'width' | 'thickness'>>;

/**
 * The same work once more, in the same size or in another one: pattern, order and turns as they were, with the shop as it is now and what
 * it learned meanwhile, without boards, ticks, times and readings. Refused where the sizes cannot be planned, or where steps put together by
 * hand have no plan that could be made anew. `job` is the id it goes by: the new one says from which it comes.
 */
export function another(
  build: BuildDocument,
  shop: ShopSnapshot,
  { name, sizes = {}, job }: { name: string; sizes?: OtherSizes; job?: string },
): Another | Refused {
  const first = duplicateOf(build, name);
  const resized = DIMENSIONS.some((dimension) => sizes[dimension] !== undefined);
  if (resized && !build.brief)
    return {
      refused: [
        'The steps of this job were put together by hand: there is no plan that could be made anew in another size. Make it again in the same size, and change it there.',
      ],
    };
  const edits: Edit[] = [
    { do: 'useShop', shop: { ...shop, display: build.shop.display } },
    ...(build.brief ? [{ do: 'replan' as const, change: sizes }] : []),
  ];
  let made: BuildDocument | Refused = first;
  const lost: string[] = [];
  for (const edit of edits) {
    if (isRefused(made)) return made;
    lost.push(...lostBy(made, edit));
    made = applyEdit(made, edit);
  }
  if (isRefused(made)) return made;
  return { build: from(build, made, job), differences: changesBetween({ ...first, name }, made), lost };
}

/** A job that was made again, with the one it comes from. */
const from = (first: BuildDocument, made: BuildDocument, job: string | undefined): BuildDocument =>
  job === undefined ? made : { ...made, earlier: { job, name: first.name } };

/**
 * One part of a piece once more, to mend it: its strip, ripped and milled as it was, and nothing else. Undefined where no strip of that id
 * is in the job.
 */
export function onePart(
  build: BuildDocument,
  shop: ShopSnapshot,
  { strip, name, job }: { strip: string; name: string; job?: string },
): Another | Refused | undefined {
  const assembly = build.assemblies.find(({ slots }) => slots.some(({ id }) => id === strip));
  const slot = assembly?.slots.find(({ id }) => id === strip);
  if (!assembly || !slot) return undefined;
  const whole = duplicateOf(build, name);
  const rip = whole.steps.find((step) => step.kind === 'rip' && step.assembly === assembly.id);
  if (!rip) return undefined;
  const mill = whole.steps.find((step) => step.kind === 'mill' && step.inputs.includes(rip.output));
  const { brief: _brief, breakdown: _breakdown, sizes: _sizes, ...rest } = whole;
  const steps = mill ? [rip, mill] : [rip];
  const part: BuildDocument = {
    ...rest,
    assemblies: [{ ...assembly, repeat: 1, slots: [bare(slot)] }],
    steps,
    targets: [
      {
        id: 'part',
        purpose: name,
        quantity: 1,
        output: steps[steps.length - 1].output,
        length: { aim: 'free' },
        width: { aim: 'free' },
        thickness: { aim: 'free' },
      },
    ],
  };
  const made = applyEdit(part, { do: 'useShop', shop: { ...shop, display: build.shop.display } });
  return isRefused(made)
    ? made
    : { build: from(build, made, job), differences: changesBetween(part, made), lost: [] };
}

const bare = ({ strip: _strip, ...slot }: Slot): Slot => slot;
