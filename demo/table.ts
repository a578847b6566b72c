import type { Edit } from '../core/document';
import type { Fitting } from '../core/steps';

/** Sizes as they are typed, in this shop's inches. */
type Size = (text: string) => { mm: number };

/**
 * What is done to a wide oak top after it is trimmed: ends across the grain that let it move, two knots filled, sanded, oiled on both
 * faces alike, carried by two and scribed to a wall that is not straight. All invented.
 */
export const livingSteps = (size: Size): Edit[] => [
  // The planer leaves what sanding takes: twice 0.1625 mm by its ladder.
  { do: 'setStep', step: 'flatten-panel', change: { to: { mm: size('1 1/8').mm + 0.325 } } },
  {
    do: 'setPlace',
    place: {
      dry: { temperatureC: 18, humidityPct: 38 },
      damp: { temperatureC: 21, humidityPct: 66 },
      driest: 2,
    },
  },
  {
    do: 'addStep',
    kind: 'fit',
    after: 'trim',
    settings: {
      fittings: [
        {
          id: 'ends',
          kind: 'breadboard',
          name: 'Breadboard ends',
          ends: 'both',
          width: size('3 3/4'),
          tenon: size('1 5/8'),
          held: 'middle',
          relief: size('1/4'),
          pin: size('3/8'),
          outermost: size('13'),
          slot: size('3/4'),
          spare: size('1/16'),
          drawbore: size('1/32'),
          flush: 'fitting',
        },
        {
          id: 'rails',
          kind: 'fixing',
          name: 'Rails of the base',
          to: 'apron',
          by: 'slots',
          held: 'middle',
          farthest: size('11'),
          bolt: size('1/4'),
          slot: size('5/8'),
          spare: size('1/16'),
        },
      ] satisfies Fitting[],
    },
  },
  {
    do: 'addStep',
    kind: 'fill',
    after: 'fit-1',
    settings: {
      with: 'epoxy',
      colour: 'black',
      voids: [
        { shape: 'round', length: size('7/8'), width: size('5/8'), depth: size('3/8'), count: 1 },
        { shape: 'long', length: size('2 1/2'), width: size('1/8'), depth: size('1/4'), count: 1 },
      ],
    },
  },
  {
    do: 'addStep',
    kind: 'surface',
    after: 'fill-1',
    settings: { by: 'sand', after: 'planed', grits: [120, 150, 180], raise: true },
  },
  {
    do: 'addStep',
    kind: 'finish',
    after: 'surface-1',
    settings: { finish: 'hardwaxOil', use: 'worn', coats: 2, hours: 18, cureDays: 14 },
  },
  {
    do: 'addStep',
    kind: 'install',
    after: 'finish-1',
    settings: {
      people: 2,
      carried: 'flat',
      stairs: true,
      saw: 'track',
      leftDegrees: 91,
      wall: [
        { at: size('0'), gap: size('0') },
        { at: size('30'), gap: size('3/16') },
        { at: size('62'), gap: size('1/16') },
      ],
    },
  },
];
