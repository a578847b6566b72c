import {
  type Brief,
  type BuildDocument,
  DIMENSIONS,
  type Edit,
  isRefused,
  type PatternId,
} from '../document';
import { mustEdit } from '../edit';
import { defaultShop, type ShopSnapshot } from '../kit';
import { fit, PATTERNS, startingBrief } from '../plan';
import { run } from '../run';
import type { Feature } from '../steps';
import { INCH } from '../units';

/** A job in trouble, and what the trouble is. */
export interface Scenario {
  name: string;
  build: BuildDocument;
}

const layUps = [
  {
    id: 'own',
    name: 'own',
    strips: [
      { species: 'maple_sugar', share: 0.4 },
      { species: 'cherry_black', share: 0.6 },
    ],
  },
];

/** The same small shop in inches and in millimetres. */
export const SHOPS: Record<'inch' | 'mm', ShopSnapshot> = {
  inch: { ...defaultShop('inch'), layUps },
  mm: {
    ...defaultShop('metric'),
    layUps,
    settingStep: { mm: 0.1 },
    display: { system: 'mm', fraction: 0 },
  },
};

/** Numbers from 0 to 1 that come again in the same order for the same seed (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A pattern's first brief with its sizes made larger or smaller at random; undefined where none can be planned. */
export function planned(
  pattern: PatternId,
  shop: ShopSnapshot,
  random: () => number,
  change: Partial<Brief> = {},
): BuildDocument | undefined {
  const start = startingBrief(pattern, shop);
  const metric = shop.display.system === 'mm';
  const round = (mm: number) => (metric ? Math.round(mm) : (Math.round(mm / 1.5875) * INCH) / 16);
  const sized = (name: 'length' | 'width', least: number, most: number) => ({
    aim: 'fixed' as const,
    value: { mm: round((start[name].value?.mm ?? 0) * (least + (most - least) * random())) },
  });
  const made = fit(
    { ...start, length: sized('length', 0.8, 1.5), width: sized('width', 0.8, 2), ...change },
    shop,
    { name: pattern, use: '' },
  );
  return isRefused(made) ? undefined : made;
}

/** What can go wrong with one job: readings at every step, wood that is short, kits that lack something. */
function troubles(build: BuildDocument, random: () => number): Scenario[] {
  const out: Scenario[] = [{ name: 'as planned', build }];
  // Made when it is asked for: who looks at one of many pays for that one.
  const say = (name: string, ...edits: Edit[]) =>
    out.push({
      name,
      get build() {
        return edits.reduce(mustEdit, build);
      },
    });
  const timeline = run(build);
  for (const step of timeline.steps) {
    DIMENSIONS.forEach((_, a) => {
      const axis = a as 0 | 1 | 2;
      const size = step.greatest[axis];
      for (const [words, off] of [
        ['a little less', 1.6],
        ['less', Math.min(size / 4, 5 + 25 * random())],
        ['a hair more', -0.8],
      ] as const)
        if (size - off > 0.5)
          say(`${step.id}: ${DIMENSIONS[axis]} measured ${words}`, {
            do: 'measure',
            step: step.id,
            dimension: DIMENSIONS[axis],
            measured: { mm: size - off },
          });
    });
  }
  const rip = build.steps.find(({ kind }) => kind === 'rip');
  const slots = build.assemblies[0]?.slots ?? [];
  if (rip && slots.length > 0) {
    for (const off of [10, 60])
      say(`strips shorter by ${off}`, { do: 'lengthenStrips', step: rip.id, byMm: -off });
    say('strips thinner', {
      do: 'setAllSlots',
      step: rip.id,
      change: { thickness: { mm: slots[0].thickness.mm - 2 } },
    });
    const [first] = slots;
    say('one strip shorter', {
      do: 'setSlot',
      step: rip.id,
      strip: first.id,
      change: { length: { mm: first.length.mm - 20 } },
    });
    say('one strip thinner', {
      do: 'setSlot',
      step: rip.id,
      strip: first.id,
      change: { thickness: { mm: first.thickness.mm - 1.5 } },
    });
    if (slots.length > 1) {
      say('one strip gone', { do: 'removeStrip', step: rip.id, strip: first.id });
      say('one strip more', { do: 'addStrip', step: rip.id });
    }
  }
  for (const step of build.steps) {
    if (step.kind === 'slice') {
      say(
        `${step.id}: two spoilt`,
        ...timeline.steps
          .filter(({ id }) => id === step.id)
          .flatMap(({ pieces }) => pieces.slice(1, 3))
          .map(({ id }): Edit => ({ do: 'spoil', step: step.id, piece: id })),
      );
      say(`${step.id}: three more asked for`, {
        do: 'setStep',
        step: step.id,
        change: { count: step.count + 3 },
      });
      say(`${step.id}: one fewer`, {
        do: 'setStep',
        step: step.id,
        change: { count: Math.max(1, step.count - 1) },
      });
    }
    if (step.kind === 'trim') {
      say('trimmed from one side', {
        do: 'setStep',
        step: step.id,
        change: { near: { mm: step.near.mm + step.far.mm }, far: { mm: 0 } },
      });
      say('trimmed more', { do: 'setStep', step: step.id, change: { start: { mm: step.start.mm + 9 } } });
      say('a hair of a trim', {
        do: 'setStep',
        step: step.id,
        change: { near: { mm: 0.1 }, far: { mm: 0.1 } },
      });
    }
    if (step.kind === 'flatten') {
      say(`${step.id}: more off`, {
        do: 'setStep',
        step: step.id,
        change: { top: { mm: step.top.mm + 1 }, bottom: { mm: step.bottom.mm + 1 } },
      });
      for (const machine of ['planer', 'gone'])
        say(`${step.id}: with ${machine}`, { do: 'useMachine', step: step.id, machine });
    }
    if (step.kind === 'glue')
      say(`${step.id}: 20 mm cauls, slow and alone`, {
        do: 'planGlue',
        step: step.id,
        change: { edgeCaul: { mm: 400 }, hands: 1 },
      });
  }
  // Two patterns stand for all: what features meet does not go by the pattern.
  if (build.brief?.pattern === 'panel' || build.brief?.pattern === 'endGrain')
    say('features in trouble', {
      do: 'addStep',
      kind: 'feature',
      after: build.steps[build.steps.length - 1].id,
      settings: { edges: 'finished', features: TROUBLED },
    });
  const { shop } = build;
  const other = (change: Partial<ShopSnapshot>): Edit => ({ do: 'useShop', shop: { ...shop, ...change } });
  say(
    'a small planer',
    other({
      machines: shop.machines.map((machine) =>
        machine.kind === 'planer' ? { ...machine, maxWidth: { mm: 150 }, minLength: { mm: 500 } } : machine,
      ),
    }),
  );
  say('no planer', other({ machines: shop.machines.filter(({ kind }) => kind !== 'planer') }));
  say('shallow saws', other({ saws: shop.saws.map((saw) => ({ ...saw, depth: { mm: 20 } })) }));
  say('thick blades', other({ saws: shop.saws.map((saw) => ({ ...saw, kerf: { mm: 6 } })) }));
  say('one saw, thick', other({ saws: [{ ...shop.saws[0], kerf: { mm: 8 } }] }));
  say('few clamps, short', other({ clamps: [] }));
  say('a cold shop', other({ climate: { temperatureC: 7, humidityPct: 60 } }));
  return out;
}

const middle = { from: 'middle' as const, by: { mm: 0 } };
const low = (mm: number) => ({ from: 'low' as const, by: { mm } });
/** Features of which each is wrong in its own way: too near the edge, too deep, beside the piece, too near another, late. */
const TROUBLED: Feature[] = [
  { id: 'a', kind: 'hole', side: 'upper', u: low(40), v: low(8), diameter: { mm: 12 } },
  {
    id: 'b',
    kind: 'pocket',
    side: 'upper',
    u: middle,
    v: middle,
    length: { mm: 40 },
    width: { mm: 30 },
    depth: { mm: 200 },
    radius: { mm: 4 },
  },
  { id: 'c', kind: 'hole', side: 'upper', u: low(9000), v: low(30), diameter: { mm: 8 } },
  { id: 'd', kind: 'hole', side: 'upper', u: low(54), v: low(10), diameter: { mm: 12 }, depth: { mm: 5 } },
];

/** Jobs in trouble: every pattern in both systems, at sizes that follow from the seed. */
export function* scenarios(seed: number, perPattern = 1): Generator<Scenario> {
  const random = randomFrom(seed);
  for (const { id } of PATTERNS)
    for (const [system, shop] of Object.entries(SHOPS))
      for (let n = 0; n < perPattern; n++) {
        const build = planned(id, shop, random);
        if (!build) continue;
        for (const trouble of troubles(build, random))
          yield {
            name: `${id}, ${system}, ${n + 1}: ${trouble.name}`,
            get build() {
              return trouble.build;
            },
          };
      }
}
