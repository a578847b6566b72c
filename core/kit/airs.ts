import { type Climate, equilibriumMoisture } from './climate';

/** The air of a room through the year: its driest and its dampest month, and which month the driest is. */
export interface Air {
  dry: Climate;
  damp: Climate;
  /** 1 for January to 12; January if missing. */
  driest?: number;
}

/** A kind of room as makers know it. */
export interface AirKind extends Air {
  id: string;
  name: string;
}

/**
 * Rooms as they usually are: middles of the ranges of indoor humidity that are usual (recalled from memory, docs/sources.md; heated rooms of
 * northern lands likely, dry lands and damp coasts unsure). What was measured in the room itself comes first.
 */
export const AIR_KINDS: readonly AirKind[] = [
  {
    id: 'heated',
    name: 'A heated house, mild winters',
    dry: { temperatureC: 20, humidityPct: 37 },
    damp: { temperatureC: 20, humidityPct: 58 },
  },
  {
    id: 'heated-cold',
    name: 'A heated house, cold winters',
    dry: { temperatureC: 21, humidityPct: 25 },
    damp: { temperatureC: 24, humidityPct: 55 },
  },
  {
    id: 'even',
    name: 'A house with its air kept even',
    dry: { temperatureC: 21, humidityPct: 35 },
    damp: { temperatureC: 22, humidityPct: 50 },
  },
  {
    id: 'arid',
    name: 'A dry land',
    dry: { temperatureC: 21, humidityPct: 15 },
    damp: { temperatureC: 24, humidityPct: 35 },
  },
  {
    id: 'coast',
    name: 'A damp, warm coast',
    dry: { temperatureC: 22, humidityPct: 50 },
    damp: { temperatureC: 24, humidityPct: 70 },
  },
  {
    id: 'unheated',
    name: 'An unheated room or a porch',
    dry: { temperatureC: 18, humidityPct: 55 },
    damp: { temperatureC: 8, humidityPct: 85 },
    driest: 6,
  },
];

/** What is assumed of a room nobody told of. */
export const DEFAULT_AIR: AirKind = AIR_KINDS[0];

/** Air in which a room can be, %: none is quite dry or quite full. */
export const ROOM_HUMIDITY = { least: 5, most: 95 } as const;

/**
 * The air of every month, from January on: from driest to dampest and back as an even wave. What lies between two months that
 * were measured is assumed, the two themselves are not.
 */
export function yearOf({ dry, damp, driest = 1 }: Air): Climate[] {
  return Array.from({ length: 12 }, (_, month) => {
    const share = (1 - Math.cos((2 * Math.PI * (month + 1 - driest)) / 12)) / 2;
    const between = (a: number, b: number) => a + share * (b - a);
    return {
      temperatureC: between(dry.temperatureC, damp.temperatureC),
      humidityPct: between(dry.humidityPct, damp.humidityPct),
    };
  });
}

/** Moisture that wood comes to in every month, %, if it had the time: it lags, and so moves a little less. */
export const moistureOf = (months: readonly Climate[]): number[] => months.map(equilibriumMoisture);
