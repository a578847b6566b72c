import type { Finding, Phrase, StepBase } from '../../document';
import { gluingOf, sawDoes } from '../../kit';
import { balancePoint, extents, toOrigin } from '../../solid';
import { counted, type Length } from '../../units';
import type { Fact, Played } from '../fact';
import { densityOf, massOf } from '../mass';
import { bears, type Carried, CARRIED, peopleFor, tipsAt } from './lift';
import { scribed, type WallReading } from './scribe';

/** A sink, a hob or another appliance: what its maker and local rules ask for, and what there is. */
export interface Appliance {
  what: 'sink' | 'hob' | 'tap' | 'other';
  to: 'wall' | 'edge' | 'end' | 'cupboard' | 'joint';
  has: Length;
  asked: Length;
}

/** Takes the piece to its place: carried, scribed to its walls, laid on its supports. */
export interface InstallStep extends StepBase {
  kind: 'install';
  /** Who carries it, and how. */
  people: number;
  carried: Carried;
  stairs?: boolean;
  saw?: string;
  leftDegrees?: number;
  rightDegrees?: number;
  wall?: WallReading[];
  /** The outermost supports, from the left end. */
  supportLeft?: Length;
  supportRight?: Length;
  appliances?: Appliance[];
}

/** The most people who find room around a piece. */
export const MOST_PEOPLE = 12;

/** Whether walls say anything that the piece must be cut for. */
export const isScribed = ({ leftDegrees = 90, rightDegrees = 90, wall = [] }: InstallStep): boolean =>
  Math.abs(leftDegrees - 90) > 1e-9 ||
  Math.abs(rightDegrees - 90) > 1e-9 ||
  new Set(wall.map(({ gap }) => gap.mm)).size > 1;

const WHAT = { sink: 'Sink', hob: 'Hob', tap: 'Tap', other: 'Appliance' } as const;
const TO = {
  wall: 'the wall behind',
  edge: 'the front edge',
  end: 'the nearest end',
  cupboard: 'the cupboard below',
  joint: 'the nearest joint',
} as const;

/** The length and width of what enters: what it was before it was scribed. */
const enteredSize = ({ entry }: Played): readonly [number, number] | undefined => {
  const [piece] = entry.entered;
  return piece && [extents(piece.blank)[0], extents(piece.blank)[1]];
};

/** The heaviest of the pieces, its mass and where it balances. */
function heaviest({ entry }: Played) {
  const list = entry.pieces.map((piece) => ({ piece, kg: massOf(piece.blank) }));
  if (list.length === 0) return undefined;
  const { piece, kg } = list.reduce((a, b) => (b.kg > a.kg ? b : a));
  const blank = toOrigin(piece.blank);
  return {
    kg,
    size: extents(blank),
    balance: balancePoint(blank, (cell) => densityOf(cell.origin.species)),
  };
}

function scribeFacts(step: InstallStep, played: Played): Fact[] {
  const size = enteredSize(played);
  if (!size || !isScribed(step)) return [];
  const { left, right, back } = scribed(step, size);
  const end = (name: string, degrees: number | undefined, off: { front: number; back: number }): Fact[] =>
    off.front + off.back > 0
      ? [
          {
            name: `${name}, corner ${degrees} degrees`,
            says: [
              'cut off ',
              { mm: Math.max(off.front, off.back) },
              off.back > 0 ? ' at the back, nothing at the front' : ' at the front, nothing at the back',
            ],
          },
        ]
      : [];
  return [
    ...end('Left end', step.leftDegrees, left),
    ...end('Right end', step.rightDegrees, right),
    ...(back.some(({ off }) => off > 0)
      ? [
          {
            name: 'Back edge, cut off',
            says: back.flatMap(({ x, off }, i): Phrase[] => [
              i > 0 ? '; ' : '',
              { mm: off },
              ' at ',
              { mm: x },
            ]),
          },
        ]
      : []),
  ];
}

/** What is known of a piece on the way to its place: its weight, who bears it, where it balances and tips, what is cut off. */
export function installFacts(step: InstallStep, played: Played): Fact[] {
  const own = heaviest(played);
  if (!own) return [];
  const { kg, size, balance } = own;
  const { liftKg } = gluingOf(played.build.shop);
  const each = bears(kg, step.people, step.carried, step.stairs === true);
  const how = CARRIED.find(({ value }) => value === step.carried)?.label.toLowerCase() ?? '';
  return [
    { name: 'It weighs', says: [{ kg }] },
    {
      name: `${counted(step.people, 'person', 'people')}, ${how}`,
      says: [
        step.stairs && step.people > 1 ? 'the one below bears up to ' : 'each bears ',
        { kg: each },
        '; this shop lifts ',
        { kg: liftKg },
        ' a pair of hands',
      ],
      state: each > liftKg + 1e-9 ? 'broken' : 'met',
    },
    ...(balance
      ? [
          {
            name: 'It balances',
            says: [{ mm: balance[0] }, ' from the left end, ', { mm: balance[1] }, ' from the near edge'],
          },
        ]
      : []),
    ...tipFacts(step, kg, size[0], balance?.[0]),
    ...scribeFacts(step, played),
    ...(step.appliances ?? []).map(
      ({ what, to, has, asked }): Fact => ({
        name: `${WHAT[what]} to ${TO[to]}`,
        says: [has, ', asked for ', asked],
        state: has.mm + 1e-9 < asked.mm ? 'broken' : 'met',
      }),
    ),
    ...(step.appliances?.length
      ? [
          {
            name: 'Water, gas and current',
            says: [
              'the licensed trades and local rules come first; the maker’s sheet of the appliance with them',
            ],
          },
        ]
      : []),
  ];
}

/** What overhangs its supports: the load on either end at which it tips. */
function tipFacts(step: InstallStep, kg: number, length: number, balance: number | undefined): Fact[] {
  const ends = overhangs(step, kg, length, balance);
  return ends.map(({ name, newtons }) => ({
    name: `${name} end tips`,
    says: newtons <= 0 ? ['by itself'] : ['under a load of ', { newtons }, ' on its end'],
    state: newtons <= 0 ? 'broken' : 'met',
  }));
}

function overhangs(
  { supportLeft, supportRight }: InstallStep,
  kg: number,
  length: number,
  balance: number | undefined,
): { name: string; newtons: number }[] {
  if (balance === undefined || !supportRight || !(supportRight.mm > 0)) return [];
  const [l, r] = [supportLeft?.mm ?? 0, supportRight.mm];
  return [
    ...(l > 1 ? [{ name: 'The left', newtons: tipsAt(kg, length - balance, length - l, length) }] : []),
    ...(length - r > 1 ? [{ name: 'The right', newtons: tipsAt(kg, balance, r, length) }] : []),
  ];
}

/** What will not do: a lift, a support, a wall, a sink. */
export function installFindings(step: InstallStep, played: Played): Finding[] {
  const out: Finding[] = [];
  const add = (finding: Omit<Finding, 'step'>) => out.push({ step: step.id, ...finding });
  const set = (change: Record<string, unknown>) => ({
    do: 'setStep' as const,
    step: step.id,
    change,
  });
  const own = heaviest(played);
  const { liftKg, hands } = gluingOf(played.build.shop);
  if (own) {
    const each = bears(own.kg, step.people, step.carried, step.stairs === true);
    if (each > liftKg + 1e-9) {
      const { carried, stairs = false } = step;
      const enough = peopleFor(own.kg, liftKg, { carried, stairs, most: MOST_PEOPLE });
      add({
        code: 'lift-too-heavy',
        severity: 'warning',
        message: [
          'It weighs ',
          { kg: own.kg },
          `: ${counted(step.people, 'person bears', 'people bear')} up to `,
          { kg: each },
          ' each, and this shop lifts ',
          { kg: liftKg },
          ' a pair of hands. ',
          enough === undefined
            ? 'Nobody carries it by hand: a trolley, a hoist, or make it in two.'
            : enough > hands
              ? `It takes ${enough}, and the shop has ${counted(hands, 'pair of hands', 'pairs of hands')}: ask for help before it is moved.`
              : '',
        ],
        numbers: { mass: own.kg, each, limit: liftKg },
        fixes: [
          ...(enough !== undefined && enough > step.people
            ? [{ label: `Lift it with ${enough} people`, edit: set({ people: enough }) }]
            : []),
          // Stairs are where they are: a trolley is no way up.
          ...(stairs || carried === 'trolley'
            ? []
            : [{ label: 'Use a trolley', edit: set({ carried: 'trolley' }) }]),
        ],
      });
    }
    for (const { name, newtons } of overhangs(step, own.kg, own.size[0], own.balance?.[0]))
      if (newtons <= 0)
        add({
          code: 'piece-tips',
          severity: 'warning',
          message: [
            `${name} end tips by itself: the piece balances `,
            { mm: own.balance?.[0] ?? 0 },
            ' from the left end, outside its supports.',
          ],
          numbers: { balance: own.balance?.[0] ?? 0, length: own.size[0] },
          fixes: [
            {
              label: 'Move the supports to both ends',
              edit: set({ supportLeft: { mm: 0 }, supportRight: { mm: own.size[0] } }),
            },
          ],
        });
  }
  const size = enteredSize(played);
  if (size && isScribed(step) && !step.saw) {
    const { back, left, right } = scribed(step, size);
    const most = Math.max(
      ...back.map(({ off }) => off),
      ...[left, right].flatMap((end) => [end.front, end.back]),
    );
    add({
      code: 'not-scribed',
      severity: 'warning',
      message: [
        'Up to ',
        { mm: most },
        ' is to be cut off for the walls, and no saw is named: nothing is cut.',
      ],
      numbers: { most },
      fixes: played.build.shop.saws
        .filter((saw) => sawDoes(saw, 'crosscut'))
        .map(({ id, name }) => ({ label: `Use ${name}`, edit: set({ saw: id }) })),
    });
  }
  for (const [i, { at, gap }] of (step.wall ?? []).entries()) {
    if (!size || (at.mm <= size[0] + 1e-6 && gap.mm < size[1])) continue;
    const past = at.mm > size[0] + 1e-6;
    add({
      code: 'wall-outside',
      severity: 'warning',
      message: past
        ? [
            `Reading ${i + 1} of the wall lies `,
            at,
            ' from the left, and the piece is ',
            { mm: size[0] },
            ' long: it is left out.',
          ]
        : [
            `Reading ${i + 1} of the wall falls back `,
            gap,
            ', and the piece is ',
            { mm: size[1] },
            ' wide: it is left out.',
          ],
      numbers: { at: i + 1, place: at.mm, gap: gap.mm, length: size[0], width: size[1] },
      fixes: [
        {
          label: `Take reading ${i + 1} out`,
          edit: set({ wall: (step.wall ?? []).filter((_, j) => j !== i) }),
        },
      ],
    });
  }
  for (const [i, { what, to, has, asked }] of (step.appliances ?? []).entries())
    if (has.mm + 1e-9 < asked.mm)
      add({
        code: 'appliance-too-near',
        severity: 'warning',
        message: [
          `${WHAT[what]}: `,
          has,
          ` to ${TO[to]}, and `,
          asked,
          ' is asked for: short by ',
          { mm: asked.mm - has.mm },
          '. The licensed trades and local rules come first.',
        ],
        numbers: { at: i + 1, has: has.mm, asked: asked.mm },
        fixes: [],
      });
  return out;
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** Heavier than the hands that carry it. */
    'lift-too-heavy': true;
    /** A piece that tips over its supports by itself. */
    'piece-tips': true;
    /** Walls that ask for a cut, and no saw that makes it. */
    'not-scribed': true;
    /** A reading of a wall that lies outside the piece. */
    'wall-outside': true;
    /** Nearer to a sink, a hob or a tap than is asked for. */
    'appliance-too-near': true;
  }
}
