import { Refusal } from '../../document';
import { turnOf } from '../../steps';
import { countNeeded, INCH } from '../../units';
import { half, requirePositive, settable } from './parts';
import { lengthOf, numberOf, type Pattern, wordOf } from './pattern';
import { sizesOf, woodOf } from './sizes';
import { draftOf, finish, panelMachine, panelStage, trimStage } from './stages';

/** Panel of stripes for R strips of width s cut at an angle, from solid.md: width L sin a + s cos a, and its length. mm. */
export const chevronPanel = (
  length: number,
  strip: number,
  { count, kerf, degrees }: { count: number; kerf: number; degrees: number },
): { width: number; length: number } => {
  const { sin, cos } = turnOf(degrees);
  const width = length * sin + strip * cos;
  return { width, length: (count * strip + (count - 1) * kerf) / sin + (width * cos) / sin };
};

/** Striped panel cut at an angle; every other strip is rolled over, so that the stripes break into zigzags. */
export const chevron: Pattern = {
  id: 'chevron',
  name: 'Chevron and zigzag',
  group: 'Angles and blocks',
  about:
    'A striped panel is cut into strips at an angle and every other strip rolled over: stripes become arrows.',
  moduleLabel: 'Strip across the stripes, about',
  endGrain: false,
  spares: true,
  measures: [
    {
      key: 'angle',
      label: 'Angle of stripes to strips, degrees',
      kind: 'angle',
      fallback: 45,
      least: 15,
      most: 80,
    },
    { key: 'stripe', label: 'Stripe, about', kind: 'length', fallback: 1 * INCH },
    {
      key: 'form',
      label: 'Strips',
      kind: 'choice',
      fallback: 'chevron',
      options: [
        { value: 'chevron', label: 'An even number: arrows in pairs' },
        { value: 'zigzag', label: 'Any number: zigzag' },
      ],
    },
  ],
  start: {
    length: '20',
    width: '10',
    thickness: '3/4',
    module: '2 1/2',
    woods: ['walnut_black', 'maple_sugar', 'cherry_black'],
  },
  plan(order) {
    const { shop, brief } = order;
    const a = shop.allowances;
    const [length, width, thickness] = sizesOf(order, [20 * INCH, 10 * INCH, 0.75 * INCH]);
    const angle = numberOf(order, 'angle');
    const { sin, cos } = turnOf(angle);
    const about = requirePositive('The strip', brief.module.mm);
    const stripe = requirePositive('The stripe', lengthOf(order, 'stripe'));
    const across = width + 2 * a.trimEdge.mm;
    const pairs = wordOf(order, 'form') === 'chevron';
    const count = pairs
      ? Math.max(2, 2 * Math.round(across / about / 2))
      : Math.max(2, Math.round(across / about));
    const strip = settable(shop, across / count);
    const draft = draftOf(order);
    const needed = chevronPanel(length + 2 * a.trimEnd.mm, strip, {
      count,
      kerf: draft.saw.kerf.mm,
      degrees: angle,
    });
    const stripes = Math.max(1, countNeeded(needed.width / stripe));
    if (stripes > 200)
      throw new Refusal([`The panel would have ${stripes} stripes of `, { mm: stripe }, '.']);
    const glued = settable(shop, thickness + a.flattenPanel.mm / 2);
    const head = a.sliceHead.mm;
    const panel = panelStage(draft, {
      tag: '',
      name: 'Striped panel',
      strips: Array.from({ length: stripes }, (_, i) => ({
        wood: woodOf(order, i),
        mm: needed.width / stripes,
      })),
      // Rounding up the stripes widens the panel, and a wider one needs more length between its corners.
      length: needed.length + (head + a.sliceHead.mm) / sin + (stripes * shop.settingStep.mm * cos) / sin,
      flat: glued,
    });
    draft.build.steps.push(
      {
        id: 'cut',
        kind: 'oblique',
        inputs: [panel.output],
        output: 'cut-strips',
        saw: draft.saw.id,
        tilt: 'mitre',
        angleDegrees: angle,
        head: a.sliceHead,
        thickness: { mm: strip },
        count: count + brief.extraSlices,
      },
      {
        id: 'glue-block',
        kind: 'glue',
        name: 'Second glue-up',
        inputs: ['cut-strips'],
        output: 'block',
        along: 'width',
        turns: { turn: 'rollOver', every: 2, first: 2, except: [] },
        ...(brief.extraSlices > 0
          ? { parts: Array.from({ length: count }, (_, i) => ({ piece: `cut.${i + 1}` })) }
          : {}),
      },
    );
    const long = panel.width / sin + (strip * cos) / sin;
    draft.build.steps.push({
      id: 'flatten-block',
      kind: 'flatten',
      inputs: ['block'],
      output: 'flat-block',
      machine: panelMachine(draft, [long, count * strip, glued]),
      top: half(glued - thickness),
      bottom: half(glued - thickness),
    });
    trimStage(draft, 'flat-block', { from: [long, count * strip], to: [length, width] });
    return finish(draft, [length, width, thickness]);
  },
};
