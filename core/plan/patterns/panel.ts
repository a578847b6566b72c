import {
  type Brief,
  type BuildDocument,
  type LaidPart,
  LONGEST_BOARD_MM,
  type Step,
  Refusal,
} from '../../document';
import { machinesThat, type ShopSnapshot } from '../../kit';
import { countNeeded, countObtainable, INCH, sectionsNeeded, sectionWidth } from '../../units';
import { plainSize } from '../aims';
import { flatteners } from '../machines';
import { emptyBuild, half, millMachine, requirePositive, settable, slot, targetOf, roughFor } from './parts';
import { numberOf, type Order, type Pattern, wordOf } from './pattern';
import { heldModules, ROW_MEASURES, rowOf } from './sizes';

/** How a wide panel is divided. */
interface Division {
  sections: number;
  stripsEach: number;
  /** Width of one section before its inner edges are jointed, mm. */
  sectionMm: number;
}

function divide(brief: Brief, shop: ShopSnapshot, strips: number, widthMm: number): Division {
  const { trimEdge, jointEdge } = shop.allowances;
  const machine = shop.machines.find(({ id }) => id === brief.flattenWith);
  const limit = machine?.maxWidth.mm || Infinity;
  const whole = widthMm + 2 * trimEdge.mm;
  const needed = whole <= limit ? 1 : sectionsNeeded(widthMm, trimEdge.mm, jointEdge.mm, limit);
  if (!Number.isFinite(needed))
    throw new Refusal([
      `${machine?.name} takes `,
      { mm: limit },
      ', less than the two jointed edges of a section.',
    ]);
  const sections = brief.sections > 0 ? brief.sections : needed;
  const stripsEach = Math.max(1, Math.ceil(strips / sections));
  return { sections, stripsEach, sectionMm: sectionWidth(widthMm, trimEdge.mm, sections, jointEdge.mm) };
}

/**
 * How a wide panel of strips of exactly one width is divided: as many of them to a section as the machine takes, and so many
 * in all that what the joints of the sections lose is there too.
 */
function divideExactly(
  brief: Brief,
  shop: ShopSnapshot,
  { strip, width, held }: { strip: number; width: number; held: number },
): Division {
  const { trimEdge, jointEdge } = shop.allowances;
  const limit = shop.machines.find(({ id }) => id === brief.flattenWith)?.maxWidth.mm || Infinity;
  const fit = Math.max(1, countObtainable(limit / strip));
  if (2 * jointEdge.mm >= fit * strip)
    throw new Refusal(['A section of ', { mm: fit * strip }, ' would go in its two jointed edges.']);
  const needs = (sections: number) =>
    countNeeded((width + 2 * trimEdge.mm + (sections - 1) * 2 * jointEdge.mm) / strip);
  let sections = brief.sections > 0 ? brief.sections : 1;
  if (brief.sections <= 0) while (Math.ceil((held || needs(sections)) / sections) > fit) sections += 1;
  const strips = held || needs(sections);
  if (strips < needs(sections))
    throw new Refusal([
      `${strips} strips of exactly `,
      { mm: strip },
      ` in ${sections} sections do not reach once their edges are jointed; ${needs(sections)} would.`,
    ]);
  const stripsEach = Math.ceil(strips / sections);
  return { sections, stripsEach, sectionMm: stripsEach * strip };
}

/**
 * Plans an edge-glued panel backwards from its finished size: strips of equal width, glued as one or as sections that
 * the flattening machine takes, flattened and trimmed. Settings are rounded up to the shop's step and the trims take
 * the rounding up, so that the build, run forward, ends exactly at the size asked. Throws Refusal with the reason.
 */
function planPanel(order: Order): BuildDocument {
  const { brief, shop, name, use } = order;
  const { allowances: a } = shop;
  const moduleMm = requirePositive('The strip width', brief.module.mm);
  const held = numberOf(order, 'strips');
  const wanted = heldModules(brief.width, moduleMm, { usual: 6, even: false, held });
  const width = requirePositive('The width', wanted.sizeMm);
  const row = rowOf(order, 'The strip width', { total: width + 2 * a.trimEdge.mm, finished: width });
  const { exact } = row;
  const length = requirePositive('The length', plainSize(brief.length, 36 * INCH));
  const thickness = requirePositive('The thickness', plainSize(brief.thickness, 0.75 * INCH));
  const { sections, stripsEach, sectionMm } = exact
    ? divideExactly(brief, shop, { strip: row.strip, width, held })
    : divide(brief, shop, row.count, width);
  if (held > 0 && held % sections !== 0)
    throw new Refusal([
      `${held} strips do not part into ${sections} sections alike; ${stripsEach * sections} would.`,
    ]);
  const ripMm = exact
    ? row.strip + 2 * a.millEdge.mm
    : settable(shop, sectionMm / stripsEach + 2 * a.millEdge.mm);
  const stripMm = ripMm - 2 * a.millEdge.mm;
  const joinedMm = sections * stripsEach * stripMm - (sections - 1) * 2 * a.jointEdge.mm;
  const flatMm = settable(shop, thickness + (sections > 1 ? a.flattenPanel.mm / 2 : 0));
  const gluedMm = settable(
    shop,
    sections > 1 ? flatMm + a.flattenPanel.mm / 2 : thickness + a.flattenPanel.mm,
  );
  const roughMm = roughFor(shop, gluedMm);
  const quantity = brief.quantity ?? 1;
  const kerf = shop.saws.find(({ id }) => id === brief.saw)?.kerf.mm ?? 0;
  // One long panel for several has two end trims in all and one kerf between each; else each is a panel of its own.
  const inOne = quantity > 1 && wordOf(order, 'alike') === 'long';
  const copies = inOne ? 1 : quantity;
  const cutLength = inOne ? quantity * length + (quantity - 1) * kerf : length;
  const longMm = settable(shop, cutLength + 2 * a.trimEnd.mm);
  if (inOne && longMm > LONGEST_BOARD_MM)
    throw new Refusal([
      `One panel for all ${quantity} would be `,
      { mm: longMm },
      ' long; boards are seldom sold longer than ',
      { mm: LONGEST_BOARD_MM },
      '. Glue them up one by one.',
    ]);
  const mill = millMachine(shop);
  const build = emptyBuild(brief, shop, name, use);
  const steps: Step[] = [];
  const joined: string[] = [];
  for (let s = 0; s < sections; s++) {
    const tag = sections > 1 ? `-${s + 1}` : '';
    const slots = Array.from({ length: copies * stripsEach }, (_, i) => {
      const nth = s * stripsEach + (i % stripsEach);
      const copy = Math.floor(i / stripsEach);
      const wood = brief.woods[nth % brief.woods.length];
      return slot(`strip-${copy * sections * stripsEach + nth + 1}`, wood, {
        length: longMm,
        width: ripMm,
        thickness: roughMm,
      });
    });
    // A section of one strip is glued to nothing: it is milled, and waits for the others.
    const glued = stripsEach > 1;
    build.assemblies.push({
      id: `lay-up${tag}`,
      name: sections > 1 ? `Section ${s + 1}` : 'Lay-up',
      repeat: 1,
      slots,
    });
    steps.push(
      {
        id: `rip${tag}`,
        kind: 'rip',
        inputs: [],
        output: `strips${tag}`,
        assembly: `lay-up${tag}`,
        saw: brief.saw,
        fence: 'shared',
      },
      {
        id: `mill${tag}`,
        kind: 'mill',
        inputs: [`strips${tag}`],
        output: `milled${tag}`,
        machine: mill.id,
        face: half(roughMm - gluedMm),
        edge: a.millEdge,
      },
      ...(glued
        ? [
            {
              id: `glue${tag}`,
              kind: 'glue' as const,
              inputs: [`milled${tag}`],
              output: `blank${tag}`,
              along: 'width' as const,
              ...(copies > 1 ? { blanks: copies } : {}),
            },
          ]
        : []),
      {
        id: `flatten${tag}`,
        kind: 'flatten',
        inputs: [glued ? `blank${tag}` : `milled${tag}`],
        output: `flat${tag}`,
        machine: brief.flattenWith,
        top: half(gluedMm - (sections > 1 ? flatMm : thickness)),
        bottom: half(gluedMm - (sections > 1 ? flatMm : thickness)),
      },
    );
    if (sections > 1)
      steps.push({
        id: `joint${tag}`,
        kind: 'joint',
        inputs: [`flat${tag}`],
        output: `jointed${tag}`,
        machine: machinesThat(shop, 'joint')[0]?.id ?? mill.id,
        near: s === sections - 1 ? { mm: 0 } : a.jointEdge,
        far: s === 0 ? { mm: 0 } : a.jointEdge,
      });
    joined.push(sections > 1 ? `jointed${tag}` : `flat${tag}`);
  }
  let last = joined[0];
  if (sections > 1) {
    const machine = flatteners(shop, [longMm, joinedMm, flatMm], false)[0];
    if (!machine) throw new Refusal(['No machine of the kit flattens a panel ', { mm: joinedMm }, ' wide.']);
    steps.push(
      {
        id: 'join',
        kind: 'glue',
        name: 'Join sections',
        inputs: joined,
        output: 'panel',
        along: 'width',
        ...(copies > 1 ? { blanks: copies, parts: dealt(copies, sections, stripsEach) } : {}),
      },
      {
        id: 'flatten-panel',
        kind: 'flatten',
        inputs: ['panel'],
        output: 'flat-panel',
        machine: machine.id,
        top: half(flatMm - thickness),
        bottom: half(flatMm - thickness),
      },
    );
    last = 'flat-panel';
  }
  steps.push({
    id: 'trim',
    kind: 'trim',
    inputs: [last],
    output: inOne ? 'long' : 'piece',
    cutter: brief.trimWith,
    start: half(longMm - cutLength),
    end: half(longMm - cutLength),
    near: half(joinedMm - width),
    far: half(joinedMm - width),
  });
  if (inOne)
    steps.push({
      id: 'part',
      kind: 'slice',
      name: `Cut into ${quantity}`,
      inputs: ['long'],
      output: 'piece',
      saw: brief.saw,
      head: { mm: 0 },
      thickness: { mm: length },
      count: quantity,
    });
  build.steps = steps;
  build.targets = [targetOf(brief, 'piece', [length, width, thickness], use || name)];
  return build;
}

/** The parts of several joined panels alike, one panel after the other: its sections, by what they are called. */
const dealt = (copies: number, sections: number, stripsEach: number): LaidPart[] =>
  Array.from({ length: copies * sections }, (_, i): LaidPart => {
    const [copy, section] = [Math.floor(i / sections), i % sections];
    if (stripsEach > 1) return { piece: `blank-${section + 1}.${copy + 1}` };
    return { piece: `strip-${copy * sections + section + 1}` };
  });

/** Strips of equal width, woods in turn: the plain panel. */
export const panel: Pattern = {
  id: 'panel',
  name: 'Edge-glued panel',
  group: 'Panels',
  about:
    'Strips of equal width glued edge to edge, woods in turn; glued in sections where the planer is too narrow.',
  moduleLabel: 'Strip width',
  endGrain: false,
  batch: true,
  measures: [
    ...ROW_MEASURES,
    {
      key: 'alike',
      label: 'Several alike',
      kind: 'choice',
      fallback: 'each',
      options: [
        { value: 'each', label: 'Glued one by one' },
        { value: 'long', label: 'Cut from one long panel' },
      ],
    },
  ],
  start: { length: '32', width: '11 1/2', thickness: '7/8', module: '2 1/4', woods: ['cherry_black'] },
  plan: planPanel,
};
