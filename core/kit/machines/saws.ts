import type { Work } from './works';

/** What is known of one kind of saw; sizes are what a new one of a small shop begins with, typed, 0 for no limit. */
export interface SawKindFacts {
  name: string;
  does: readonly Work[];
  kerf: string;
  depth: string;
  crosscut: string;
  rip: string;
  setting: readonly [likely: string, worst: string];
}

/** The kinds of saw; kerfs, depths and settings are common practice. A new one is one entry here. */
export const SAW_KINDS = {
  'table saw': {
    name: 'Table saw',
    does: ['rip', 'crosscut', 'resaw'],
    kerf: '1/8',
    depth: '3',
    crosscut: '24',
    rip: '24',
    setting: ['0.008', '0.016'],
  },
  bandsaw: {
    name: 'Bandsaw',
    does: ['rip', 'crosscut', 'resaw', 'shape'],
    kerf: '1/16',
    depth: '9',
    crosscut: '12',
    rip: '13',
    setting: ['0.015', '0.03'],
  },
  'track saw': {
    name: 'Track saw',
    does: ['rip', 'crosscut'],
    kerf: '3/32',
    depth: '2',
    crosscut: '0',
    rip: '0',
    setting: ['0.012', '0.025'],
  },
  'mitre saw': {
    name: 'Mitre saw',
    does: ['crosscut'],
    kerf: '1/8',
    depth: '3 1/2',
    crosscut: '12',
    rip: '0',
    setting: ['0.01', '0.02'],
  },
  'hand saws': {
    name: 'Hand saws',
    does: ['rip', 'crosscut', 'resaw', 'shape'],
    kerf: '1/32',
    depth: '0',
    crosscut: '0',
    rip: '0',
    setting: ['0.03', '0.06'],
  },
} as const satisfies Record<string, SawKindFacts>;

export type SawKind = keyof typeof SAW_KINDS;
