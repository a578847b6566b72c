import type { MachineKindFacts } from './kind';

/*
 * Limits and cautions: common practice, recalled from memory (docs/sources.md); the machine's own manual comes first.
 * The order is the one in which a shop reaches for them.
 */

/** The kinds of machine. A new one is one entry here. */
export const MACHINE_KINDS = {
  jointer: {
    name: 'Jointer',
    says: 'Knives under a fence: straight edges and first flat faces.',
    does: ['joint', 'trim'],
    cuts: 'knives',
    limits: { maxWidth: '8', minLength: '12', minThickness: '1/2', bite: '1/16' },
    setting: ['0.006', '0.015'],
    caution: 'Push blocks whenever the wood is lower than the fence; nothing shorter than its manual allows.',
  },
  planer: {
    name: 'Planer',
    says: 'Knives over rollers: faces parallel and to thickness.',
    does: ['mill', 'flatten', 'trim'],
    cuts: 'knives',
    feeds: true,
    carrier: true,
    limits: {
      maxWidth: '13',
      maxThickness: '6',
      minLength: '12',
      minThickness: '1/4',
      bite: '1/16',
      dial: '0',
      turn: '0',
    },
    setting: ['0.005', '0.012'],
    caution: 'No end grain, loose knots or nails; nothing shorter than the rollers are apart.',
  },
  'drum sander': {
    name: 'Drum sander',
    says: 'A sanding drum over a belt: faces parallel, end grain too.',
    does: ['flatten', 'sand'],
    cuts: 'abrasive',
    feeds: true,
    limits: {
      maxWidth: '19',
      maxThickness: '4',
      minLength: '3',
      minThickness: '1/16',
      bite: '1/64',
      dial: '0',
      turn: '0',
    },
    setting: ['0.004', '0.01'],
    caution: 'Light passes; a piece must reach over both pressure rollers. Mask and collection for the dust.',
  },
  'belt sander': {
    name: 'Belt sander',
    says: 'A standing belt: edges and curves sanded to a line.',
    does: ['sand', 'shape'],
    cuts: 'abrasive',
    byHand: 'places',
    limits: { maxWidth: '6', minLength: '3', bite: '1/64' },
    setting: ['0.015', '0.03'],
    caution: 'Against the stop, with the belt running away from you; fingers clear of the gap at the table.',
  },
  'router sled': {
    name: 'Router sled',
    says: 'A router on rails over the work: flat faces of any width, end grain too.',
    does: ['flatten', 'rout'],
    cuts: 'bit',
    byHand: 'faces',
    bits: { flatten: 'surfacing' },
    limits: {
      maxWidth: '40',
      maxThickness: '5',
      minLength: '0',
      minThickness: '1/4',
      bite: '1/16',
      collet: '1/2',
    },
    setting: ['0.01', '0.02'],
    caution: 'Wedge the work fast; large bits at low speed; light passes against the turn of the bit.',
  },
  'router table': {
    name: 'Router table',
    says: 'A router under a table with a fence: grooves and profiled edges.',
    does: ['rout', 'shape'],
    cuts: 'bit',
    limits: { minLength: '10', depth: '2', bite: '1/8', collet: '1/2' },
    setting: ['0.004', '0.01'],
    caution:
      'Feed against the turn of the bit, never between bit and fence; small parts in a jig, a starting pin for curves.',
  },
  'computer-guided router': {
    name: 'Computer-guided router',
    says: 'A router led over a table by a program: recesses, outlines, holes and flat faces.',
    does: ['flatten', 'rout', 'shape', 'bore'],
    cuts: 'bit',
    bits: { flatten: 'surfacing' },
    limits: { maxWidth: '24', maxLength: '36', maxThickness: '4', margin: '1', bite: '1/8', collet: '1/4' },
    setting: ['0.004', '0.01'],
    caution:
      'Clamps and screws outside every path; stay with it while it runs; check the bit’s length before the first cut.',
  },
  'drill press': {
    name: 'Drill press',
    says: 'A drill led square to its table.',
    does: ['bore'],
    cuts: 'bit',
    limits: { reach: '7', depth: '3', collet: '1/2', minLength: '4' },
    setting: ['0.01', '0.02'],
    caution: 'Clamp the work; large bits slowly; take the chuck key out.',
  },
  'biscuit cutter': {
    name: 'Biscuit cutter',
    says: 'A small blade that plunges slots for biscuits.',
    does: ['slot'],
    cuts: 'bit',
    limits: { depth: '3/4', minThickness: '3/8' },
    setting: ['0.008', '0.02'],
    caution: 'Clamp the part; both hands behind the fence.',
  },
  'loose-tenon cutter': {
    name: 'Loose-tenon cutter',
    says: 'A bit that swings as it plunges: mortises for loose tenons.',
    does: ['mortise'],
    cuts: 'bit',
    limits: { depth: '1 1/8', minThickness: '1/2' },
    setting: ['0.004', '0.01'],
    caution: 'Clamp the part; let the bit come to speed before it meets the wood.',
  },
  'hand planes': {
    name: 'Hand planes',
    says: 'Planes, winding sticks and a straightedge: any width, any grain.',
    does: ['flatten', 'joint', 'trim'],
    cuts: 'plane',
    byHand: 'places',
    limits: { maxWidth: '0', maxThickness: '0', minLength: '0', minThickness: '1/8', bite: '1/64' },
    setting: ['0.015', '0.03'],
    caution: 'A sharp iron and a stop; both hands behind the edge.',
  },
} as const satisfies Record<string, MachineKindFacts>;

export type MachineKind = keyof typeof MACHINE_KINDS;
