import { type BuildDocument, type Slot, type Step, Refusal } from '../../document';
import { doesWork, machineFacts, machinesThat, type Saw, takesEndGrain } from '../../kit';
import type { GlueStep, TrimStep } from '../../steps';
import { blankLengthForSlices, sumOf, falling } from '../../units';
import { flatteners, machineTakes } from '../machines';
import { emptyBuild, half, millMachine, settable, slot, targetOf, roughFor } from './parts';
import type { Order } from './pattern';

/** A build that is being planned, stage by stage. */
export interface Draft extends Order {
  build: BuildDocument;
  saw: Saw;
}

/** Opens a draft. Throws Refusal where the kit has not the saw. */
export function draftOf(order: Order): Draft {
  const saw = order.shop.saws.find(({ id }) => id === order.brief.saw);
  if (!saw) throw new Refusal([`The kit has no saw “${order.brief.saw}”.`]);
  return { ...order, saw, build: emptyBuild(order.brief, order.shop, order.name, order.use) };
}

/** One strip of a panel: its wood and its width in the glued panel, before rounding, mm. */
export interface StripPlan {
  wood: string;
  mm: number;
  /** Not to be rounded. */
  exact?: boolean;
}

/** A panel to be glued and flattened. All mm. */
export interface PanelPlan {
  /** Ends the ids of its steps; empty for the main one. */
  tag: string;
  name: string;
  strips: readonly StripPlan[];
  length: number;
  /** Thickness once flat. */
  flat: number;
  /** How many alike. */
  copies?: number;
}

/** What a stage gives: the id of its output, and the sizes it really has after rounding, mm. */
export interface Made {
  output: string;
  length: number;
  width: number;
  thickness: number;
  strips: number[];
  copies: number;
}

const id = (name: string, tag: string) => (tag ? `${name}-${tag}` : name);

/** Rips strips from their boards and mills both faces to a thickness, mm; edges as the shop does. Gives the output. */
export function ripAndMill(
  draft: Draft,
  { tag, name, slots, dressed }: { tag: string; name: string; slots: Slot[]; dressed: number },
): string {
  const { build, brief, shop } = draft;
  build.assemblies.push({ id: id('lay-up', tag), name, repeat: 1, slots });
  build.steps.push(
    {
      id: id('rip', tag),
      kind: 'rip',
      inputs: [],
      output: id('strips', tag),
      assembly: id('lay-up', tag),
      saw: brief.saw,
      fence: 'shared',
    },
    {
      id: id('mill', tag),
      kind: 'mill',
      inputs: [id('strips', tag)],
      output: id('milled', tag),
      machine: millMachine(shop).id,
      face: half(slots[0].thickness.mm - dressed),
      edge: shop.allowances.millEdge,
    },
  );
  return id('milled', tag);
}

/** Rip, mill, glue across the width, flatten. Strips are rounded up to the shop's step; so is the rough wood. */
export function panelStage(draft: Draft, plan: PanelPlan): Made {
  const { shop, build } = draft;
  const a = shop.allowances;
  const { tag, copies = 1 } = plan;
  const rips = plan.strips.map(({ mm, exact }) =>
    exact ? mm + 2 * a.millEdge.mm : settable(shop, mm + 2 * a.millEdge.mm),
  );
  const strips = rips.map((rip) => rip - 2 * a.millEdge.mm);
  const width = sumOf(strips);
  const glued = settable(shop, plan.flat + a.flattenPanel.mm);
  const rough = roughFor(shop, glued);
  // What is shorter than the planer's rollers are apart is not put through it: the rest is cut off later.
  const length = settable(shop, Math.max(plan.length, millMachine(shop).minLength.mm));
  const prefix = tag ? `${tag}-` : '';
  let output = ripAndMill(draft, {
    tag,
    name: plan.name,
    slots: Array.from({ length: copies }, (_, c) =>
      plan.strips.map(({ wood }, i) =>
        slot(`${prefix}strip-${c * strips.length + i + 1}`, wood, {
          length,
          width: rips[i],
          thickness: rough,
        }),
      ),
    ).flat(),
    dressed: glued,
  });
  const steps: Step[] = [];
  if (strips.length > 1) {
    steps.push({
      id: id('glue', tag),
      kind: 'glue',
      ...(tag ? { name: `Glue-up: ${plan.name.toLowerCase()}` } : {}),
      inputs: [output],
      output: id('panel', tag),
      along: 'width',
      ...(copies > 1 ? { blanks: copies } : {}),
    });
    output = id('panel', tag);
  }
  steps.push({
    id: id('flatten', tag),
    kind: 'flatten',
    inputs: [output],
    output: id('flat', tag),
    // A machine must reach down to what is left, not only take what comes.
    machine: panelMachine(draft, [length, width, plan.flat]),
    top: half(glued - plan.flat),
    bottom: half(glued - plan.flat),
  });
  build.steps.push(...steps);
  return { output: id('flat', tag), length, width, thickness: plan.flat, strips, copies };
}

/** The brief's saw where it cuts so deep in one pass, mm; else the one that cuts deepest, and the review says why. */
export function sawReaching({ shop, saw }: Draft, depthMm: number): Saw {
  const reaches = ({ depth }: Saw) => depth.mm === 0 || depth.mm >= depthMm - 1e-6;
  if (reaches(saw)) return saw;
  return shop.saws.find(reaches) ?? shop.saws.toSorted(falling((x) => x.depth.mm))[0] ?? saw;
}

/** The brief's machine where it takes the panel, else one that does, else the brief's: the review then says why not. */
export function panelMachine({ shop, brief }: Draft, size: readonly [number, number, number]): string {
  const wanted = shop.machines.find(({ id: own }) => own === brief.flattenWith);
  if (wanted && doesWork(wanted, 'flatten') && machineTakes(wanted, size)) return wanted.id;
  return flatteners(shop, size, false)[0]?.id ?? wanted?.id ?? millMachine(shop).id;
}

/** The machine that may flatten an end-grain blank. Throws Refusal where the kit has none. */
export function blockMachine({ shop }: Draft, size: readonly [number, number, number]): string {
  const [machine] = flatteners(shop, size, true);
  const any =
    machine ??
    machinesThat(shop, 'flatten').find(
      (each) => takesEndGrain(each) && machineFacts(each).byHand === 'places',
    );
  if (!any)
    throw new Refusal([
      'No machine of the kit may flatten end grain of this size; a router sled or hand planes would.',
    ]);
  return any.id;
}

/** Longest blank worth slicing in one piece: longer ones are heavy at the saw, and few boards give them. Common practice. */
const LONGEST_BLANK = 1300;

/** How slices are shared out over blanks: how many blanks, how many slices of each, and how long each must be, mm. */
export function shareSlices(
  draft: Draft,
  slices: number,
  sliceMm: number,
): { copies: number; each: number; length: number } {
  const { allowances: a } = draft.shop;
  const long = (n: number) =>
    blankLengthForSlices(n, sliceMm, draft.saw.kerf.mm, { head: a.sliceHead.mm, remnant: a.sliceTail.mm });
  let copies = 1;
  while (copies < slices && long(Math.ceil(slices / copies)) > LONGEST_BLANK) copies += 1;
  const each = Math.ceil(slices / copies);
  return { copies, each, length: settable(draft.shop, long(each)) };
}

/** Slices a flat panel and stands the slices on end. Gives their ids in order. */
export function sliceStage(
  draft: Draft,
  panel: Made,
  { tag, sliceMm, each, stand = true }: { tag: string; sliceMm: number; each: number; stand?: boolean },
): { output: string; ids: string[] } {
  const step = id('slice', tag);
  draft.build.steps.push({
    id: step,
    kind: 'slice',
    inputs: [panel.output],
    output: id('slices', tag),
    saw: draft.brief.saw,
    head: draft.shop.allowances.sliceHead,
    thickness: { mm: sliceMm },
    count: each,
    hold: draft.shop.allowances.sliceTail,
  });
  let output = id('slices', tag);
  if (stand) {
    draft.build.steps.push({
      id: id('stand', tag),
      kind: 'turn',
      inputs: [output],
      output: id('standing', tag),
      turn: 'standOnEnd',
    });
    output = id('standing', tag);
  }
  const ids = Array.from({ length: panel.copies }, (_, c) =>
    Array.from({ length: each }, (_, i) =>
      panel.copies > 1 ? `${step}.${c + 1}.${i + 1}` : `${step}.${i + 1}`,
    ),
  ).flat();
  return { output, ids };
}

/** Flattens an end-grain blank to its finished thickness. Sizes in mm. */
export function flattenBlockStage(
  draft: Draft,
  input: string,
  size: readonly [number, number, number],
  finished: number,
): string {
  draft.build.steps.push({
    id: 'flatten-block',
    kind: 'flatten',
    inputs: [input],
    output: 'flat-block',
    machine: blockMachine(draft, size),
    top: half(size[2] - finished),
    bottom: half(size[2] - finished),
  });
  return 'flat-block';
}

/** Cuts a piece to size, the same off both sides unless `uneven` says otherwise. Sizes in mm. */
export function trimStage(
  draft: Draft,
  input: string,
  {
    from: [length, width],
    to: [wantedLength, wantedWidth],
    name,
  }: {
    from: readonly [number, number];
    to: readonly [number, number];
    name?: { id: string; output: string; name: string };
  },
): string {
  const over = [length - wantedLength, width - wantedWidth];
  if (over[0] < -1e-6 || over[1] < -1e-6)
    throw new Refusal([
      'The blank would be ',
      { mm: length },
      ' by ',
      { mm: width },
      ', less than the size asked for.',
    ]);
  const trim: TrimStep = {
    id: name?.id ?? 'trim',
    ...(name ? { name: name.name } : {}),
    kind: 'trim',
    inputs: [input],
    output: name?.output ?? 'piece',
    cutter: draft.brief.trimWith,
    start: half(Math.max(0, over[0])),
    end: half(Math.max(0, over[0])),
    near: half(Math.max(0, over[1])),
    far: half(Math.max(0, over[1])),
  };
  draft.build.steps.push(trim);
  return trim.output;
}

/** Closes a draft: the target, and what is wanted of it. */
export function finish(
  draft: Draft,
  size: readonly [number, number, number],
  output = 'piece',
): BuildDocument {
  const { build, brief, use, name } = draft;
  build.targets = [targetOf(brief, output, [...size], use || name)];
  return build;
}

/** The second glue-up of standing slices, rows in order. */
export const rowsGlue = (inputs: string[], change: Partial<GlueStep>): GlueStep => ({
  id: 'glue-block',
  kind: 'glue',
  name: 'Second glue-up',
  inputs,
  output: 'block',
  along: 'length',
  ...change,
});
