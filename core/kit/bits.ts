import type { Length } from '../units';
import type { Work } from './machines/works';

/** What is known of one kind of cutter, bit or drill. */
export interface BitKindFacts {
  name: string;
  says: string;
  for: readonly Work[];
  /** It has a wider body above a slender part: the depth where it widens is entered. */
  stepped?: true;
  /** Its top speed goes by its width, as that of a router's bits does. */
  routed?: true;
}

/** The kinds of cutters, bits and drills. A new one is one entry here. */
export const BIT_KINDS = {
  surfacing: { name: 'Surfacing bit', says: 'flattens with a router sled', for: ['flatten'], routed: true },
  straight: { name: 'Straight bit', says: 'grooves and recesses', for: ['rout'], routed: true },
  spiral: { name: 'Spiral bit', says: 'grooves and deep recesses', for: ['rout', 'shape'], routed: true },
  coreBox: { name: 'Core-box bit', says: 'grooves with a round floor', for: ['rout'], routed: true },
  flushTrim: { name: 'Flush-trim bit', says: 'edges to a template', for: ['shape'], routed: true },
  roundOver: { name: 'Round-over bit', says: 'rounded edges', for: ['shape'], routed: true },
  chamfer: { name: 'Chamfer bit', says: 'bevelled edges', for: ['shape'], routed: true },
  cove: { name: 'Cove bit', says: 'hollow edges', for: ['shape'], routed: true },
  ogee: { name: 'Ogee bit', says: 'S-shaped edges', for: ['shape'], routed: true },
  rabbet: { name: 'Rabbet bit', says: 'steps along an edge', for: ['rout'], routed: true },
  slotCutter: { name: 'Slot cutter', says: 'grooves in an edge', for: ['rout'], routed: true },
  stackedCutter: { name: 'Stacked cutter', says: 'wide grooves on a table saw', for: ['rout'] },
  bradPoint: { name: 'Brad-point drill', says: 'clean holes for dowels', for: ['bore'] },
  twist: { name: 'Twist drill', says: 'pilot holes', for: ['bore'] },
  forstner: { name: 'Forstner bit', says: 'wide holes with a flat floor', for: ['bore'] },
  countersink: { name: 'Countersink', says: 'seats for screw heads', for: ['bore'] },
  steppedDrill: {
    name: 'Stepped drill',
    says: 'pilot hole, shank and head in one',
    for: ['bore'],
    stepped: true,
  },
} as const satisfies Record<string, BitKindFacts>;

export type BitKind = keyof typeof BIT_KINDS;
/** What Junta knows of a kind of cutter, bit or drill. */
export const bitFacts = (kind: BitKind): BitKindFacts => BIT_KINDS[kind];

/** A cutter, bit or drill of the shop. What is missing nobody entered. */
export interface Bit {
  id: string;
  name: string;
  kind: BitKind;
  diameter: Length;
  /** Width of its body above the cutting edges: a deep cut rubs there if it is wider than the cut. */
  body?: Length;
  /** Length of its cutting edges. */
  cutting?: Length;
  shank?: Length;
  /** From its tip to the end of its shank. */
  whole?: Length;
  /** From its tip to where a stepped one widens. */
  transition?: Length;
  /** Top speed marked on it, turns a minute. */
  topRpm?: number;
}

/**
 * Top speeds of router bits by diameter, mm and turns a minute (common practice, from memory: up to 1 in 24,000, to
 * 2 in 18,000, to 2 1/2 in 16,000, to 3 1/2 in 12,000, above 10,000). A width between two steps takes the lower speed.
 */
const ROUTER_RPM: readonly (readonly [mostMm: number, rpm: number])[] = [
  [25.4, 24_000],
  [50.8, 18_000],
  [63.5, 16_000],
  [88.9, 12_000],
  [Infinity, 10_000],
];

/** The fastest a bit may turn: as marked on it, else the usual for a router's bit of its width; undefined where neither is known. */
export const topRpmOf = ({ kind, diameter, topRpm }: Bit): number | undefined =>
  topRpm ??
  (bitFacts(kind).routed ? ROUTER_RPM.find(([most]) => diameter.mm <= most + 1e-6)?.[1] : undefined);
