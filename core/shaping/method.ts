import type { Phrase } from '../document';
import type { Feature, SideSize } from '../steps';
import { kindOf, type PieceSide } from '../steps';
import { counted } from '../units';
import { guideReport } from './guide';
import type { FeatureReport } from './report';

type Line = Phrase[];

const OPPOSITE: Record<PieceSide, string> = {
  upper: 'lower face',
  lower: 'upper face',
  near: 'far edge',
  far: 'near edge',
  left: 'right end',
  right: 'left end',
};
/** Profiles larger than this are sawn first with the blade leaning or raised, and only cleaned up by the cutter, mm (common practice). */
const BLADE_FIRST = 10;
/** How far a round blade reaches below what it saws, mm (common practice). */
const BLADE_BELOW = 3;

/** How deep each of its passes is, all alike. */
function passLine({ passes, depth, bit }: FeatureReport): Line[] {
  return bit && passes !== undefined && passes > 1
    ? [
        [
          `${counted(passes, 'pass', 'passes')} of `,
          { mm: depth / passes },
          `, with the ${bit.name.toLowerCase()}.`,
        ],
      ]
    : [];
}

/** Where the first pass of a bit that widens ends. */
function transitionLine({ bit, depth, passes }: FeatureReport): Line[] {
  const at = bit?.transition?.mm;
  return bit && at !== undefined
    ? [
        [
          `The ${bit.name.toLowerCase()} widens `,
          { mm: at },
          ' from its tip; its first pass goes ',
          { mm: passes ? depth / passes : depth },
          ' deep.',
        ],
      ]
    : [];
}

/** Where it tears out, and what holds the fibres there. */
function tearLine({ laid, floor }: FeatureReport): Line[] {
  const { feature, side } = laid;
  const { by, runsOut } = kindOf(feature);
  if (by === 'drill' && floor === undefined)
    return [
      [
        `It comes out at the ${OPPOSITE[feature.side]}: back that side up, or turn over when the point shows.`,
      ],
    ];
  if (feature.kind === 'groove' && !feature.length)
    return [
      [
        feature.runs === 'along'
          ? 'It runs out at both ends: start a little in from the end, or back the far end up.'
          : 'The cutter tears where it leaves the wood, at the far edge: clamp a strip against that edge.',
      ],
    ];
  if (feature.kind === 'opening' && feature.blade)
    return [
      [
        'A blade that cuts upwards tears the face it comes out of: saw from the other one, or along a scored line.',
      ],
    ];
  if (feature.kind === 'tenon')
    return [
      [
        `Its shoulders tear at the edge where the cutter leaves ${side.side === 'left' || side.side === 'right' ? 'the end' : 'the side'}: a backing strip there.`,
      ],
    ];
  return runsOut && by === 'cutter' && feature.kind !== 'edge'
    ? [['Back up the side where the cutter leaves the wood.']]
    : [];
}

/** An opening: its corners, its plunge cuts, and what a round blade leaves below. */
function openingLines(feature: Feature, { deep }: SideSize): Line[] {
  if (feature.kind !== 'opening') return [];
  const { shape, radius, cutter, blade, length, width } = feature;
  if (shape !== 'rectangle')
    return [['Bore one hole inside the line to begin in, wide enough for the cutter or blade.']];
  const bore = radius.mm > 0 ? 2 * radius.mm : undefined;
  const lines: Line[] = [
    bore === undefined
      ? [
          'Its corners are sharp: the cutter leaves them round, radius ',
          { mm: cutter.mm / 2 },
          '; a chisel squares them.',
        ]
      : [
          'Bore the four corners first: holes of ',
          { mm: bore },
          ', their middles ',
          { mm: radius.mm },
          ' in from both lines.',
        ],
  ];
  if (blade) {
    const r = blade.mm / 2;
    const below = deep + BLADE_BELOW;
    if (below >= r) return [...lines, ['A blade of ', blade, ' does not reach through ', { mm: deep }, '.']];
    const chord = (over: number) => Math.sqrt(Math.max(0, r * r - (r - over) ** 2));
    const leaves = chord(below) - chord(BLADE_BELOW);
    const straight = Math.min(length.mm, width.mm) - 2 * radius.mm;
    const least = 2 * chord(below);
    lines.push(
      least > straight
        ? [
            'A plunge cut of a blade of ',
            blade,
            ' is ',
            { mm: least },
            ' long, and the shortest straight side ',
            { mm: Math.max(0, straight) },
            ': saw that one by hand.',
          ]
        : [
            'Plunge cuts between the corners: where the blade stops at the line above, it leaves ',
            { mm: leaves },
            ' at each end below; a hand saw finishes them.',
          ],
    );
  }
  return lines;
}

/** A tenon: its third, the stop, and how each cheek is taken off. */
function tenonLines({ laid, depth, bit }: FeatureReport): Line[] {
  const { feature, side, spots } = laid;
  if (feature.kind !== 'tenon' || !spots[0]) return [];
  const third = side.wide / 3;
  const cheeks = [spots[0].v - feature.thickness.mm / 2, side.wide - spots[0].v - feature.thickness.mm / 2];
  const cut = cheeks.filter((mm) => mm > 1e-6);
  const width = bit?.diameter.mm;
  return [
    ['A third of the thickness is ', { mm: third }, '; this tenon has ', feature.thickness, '.'],
    ['Set the stop ', { mm: depth }, ' from the end, for the shoulder.'],
    [
      `Take ${cut.length === 2 ? 'both cheeks' : 'one cheek'} off: `,
      ...cut.flatMap((mm, i): Phrase[] => [...(i > 0 ? [' and '] : []), { mm }]),
      ' deep',
      ...(width ? [`, ${counted(Math.ceil(depth / width - 1e-6), 'pass', 'passes')} side by side`] : []),
      '; the last one light, fitted to its mortise.',
    ],
  ];
}

/** A shaped edge: the blade first where much comes off, ends first, and the block that takes the break-out. */
function edgeLines({ laid }: FeatureReport): Line[] {
  const { feature } = laid;
  if (feature.kind !== 'edge') return [];
  const { size, which, profile, step } = feature;
  const first: Line[] =
    size.mm > BLADE_FIRST && (profile === 'chamfer' || profile === 'rabbet')
      ? [
          [
            profile === 'chamfer' ? 'Saw it first with the blade leaning, ' : 'Saw it first in two cuts, ',
            { mm: 1 },
            ' outside the line; then the cutter.',
          ],
        ]
      : size.mm > BLADE_FIRST
        ? [['In passes: raise the cutter in steps, the last one light.']]
        : [];
  const ends = which === 'all' || which === 'ends' || which === 'left' || which === 'right';
  return [
    ...first,
    ...(ends
      ? ([
          [
            which === 'all' ? 'The ends first, then the long edges. ' : '',
            'Clamp a block flush with the far corner, at least ',
            { mm: size.mm + (step?.mm ?? 0) },
            ' thick: it takes the break-out.',
          ],
        ] as Line[])
      : []),
    ...(which === 'openings'
      ? ([['With the bearing along the opening, clockwise round it.']] as Line[])
      : []),
  ];
}

/** A row of tails: what each measures, and how it is sawn. */
function tailLines({ laid }: FeatureReport): Line[] {
  const { feature, side } = laid;
  if (feature.kind !== 'dovetails') return [];
  const { tails, pin, half, length, slope } = feature;
  const wide = (side.wide - 2 * half.mm - (tails - 1) * pin.mm) / tails;
  return [
    [
      `${counted(tails, 'tail')}, `,
      { mm: wide },
      ' at the end and ',
      { mm: wide - (2 * length.mm) / slope },
      ' at the shoulder, at ',
      { count: Math.round((Math.atan(1 / slope) * 1800) / Math.PI) / 10 },
      ' degrees.',
    ],
    ['Saw down the lines on the waste side, the half pins last; chop halfway from each face.'],
  ];
}

/** How a template or jig guides it. */
function guideLines({ laid, depth, bit }: FeatureReport): Line[] {
  const report = guideReport(laid.feature, depth, bit);
  if (!report) return [];
  const { offset, leastRadius, play, wander } = report;
  return [
    ...(offset === undefined
      ? []
      : ([
          [
            'The opening of the template is ',
            { mm: offset },
            ' larger all round than the cut; its inner corners are round, radius ',
            { mm: (leastRadius ?? 0) + offset },
            ' or more.',
          ],
        ] as Line[])),
    ...(play === undefined || wander === undefined
      ? []
      : ([
          [
            'The drill plays ',
            { mm: play },
            ' in its bushing: at the floor its tip may wander ',
            { mm: wander },
            '.',
          ],
        ] as Line[])),
  ];
}

/** How a feature is made, one line each, in its order: what the maker sets, bores and backs up, with the numbers. */
export function methodOf(report: FeatureReport): Line[] {
  const { laid } = report;
  const { feature, side, refused } = laid;
  if (refused) return [];
  const makes = kindOf(feature).makes?.(feature, side, laid.spots.length) ?? [];
  return [
    ...guideLines(report),
    ...openingLines(feature, side),
    ...tenonLines(report),
    ...tailLines(report),
    ...edgeLines(report),
    ...passLine(report),
    ...(feature.kind === 'opening'
      ? ([['Screw a strip across what falls out before the last cut.']] as Line[])
      : []),
    ...transitionLine(report),
    ...tearLine(report),
    ...(makes.length > 0 ? [makes] : []),
  ];
}
