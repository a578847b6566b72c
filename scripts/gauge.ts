import { setTimeout as pause } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import {
  GAUGE_KIND_NAMES,
  GAUGE_UNIT_NAMES,
  type GaugeKindName,
  type GaugeUnit,
  GAUGES,
  inBase,
  simulatedReading,
} from '../core/bench';

const USAGE = `usage: npm run -s junta -- gauge KIND --true VALUE [--unit UNIT] [--name NAME] [--noise N] [--drift N] [--wrong N] [--count N] [--every MS] [--url URL] [--shop ID]
KIND is one of ${GAUGE_KIND_NAMES.join(', ')}; UNIT one of ${GAUGE_UNIT_NAMES.join(', ')}. Scatter and drift are in the unit of the gauge; one reading in --wrong comes in another unit.`;

const isKind = (text: string | undefined): text is GaugeKindName =>
  GAUGE_KIND_NAMES.some((each) => each === text);
const number = (text: string, name: string): number => {
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value))
    throw new Error(`--${name}: “${text}” is no number.\n${USAGE}`);
  return value;
};

/** A simulated gauge on the command line: sends readings to a running Junta as a real one would, and prints what it sent. */
export async function gauge(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      true: { type: 'string' },
      unit: { type: 'string' },
      name: { type: 'string' },
      noise: { type: 'string' },
      drift: { type: 'string', default: '0' },
      wrong: { type: 'string', default: '0' },
      count: { type: 'string', default: '1' },
      every: { type: 'string', default: '1000' },
      url: { type: 'string', default: 'http://127.0.0.1:4180' },
      shop: { type: 'string' },
    },
  });
  const [kind] = positionals;
  if (!isKind(kind) || values.true === undefined) throw new Error(USAGE);
  const { name, units, noise } = GAUGES[kind];
  const unit = (values.unit ?? units[0]) as GaugeUnit;
  if (!(units as readonly string[]).includes(unit))
    throw new Error(`${name}: it speaks in ${units.join(' or ')}, not in “${unit}”.`);
  const base = (text: string, of: string) => inBase({ value: number(text, of), unit });
  const difference = (text: string, of: string) => base(text, of) - base('0', of);
  const how = {
    true: base(values.true, 'true'),
    noise: values.noise === undefined ? noise : difference(values.noise, 'noise'),
    drift: difference(values.drift, 'drift'),
    wrongOneIn: number(values.wrong, 'wrong'),
    unit,
  };
  const count = number(values.count, 'count');
  for (let nth = 0; nth < count; nth++) {
    if (nth > 0) await pause(number(values.every, 'every'));
    const line = JSON.stringify(simulatedReading(values.name ?? `${name} 1`, kind, how, nth, Math.random));
    const answer = await fetch(`${values.url}/api/gauges`, {
      method: 'POST',
      headers: {
        'Content-Type': 'application/json',
        'Junta-Client': 'gauge',
        ...(values.shop ? { 'Junta-Shop': values.shop } : {}),
      },
      body: line,
    });
    if (!answer.ok)
      throw new Error(`${answer.status}: ${((await answer.json()) as { detail: string }).detail}`);
    process.stdout.write(`${line}\n`);
  }
}
