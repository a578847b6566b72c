import { useEffect, useRef, useState } from 'react';
import {
  GAUGE_KIND_NAMES,
  type GaugeKindName,
  type GaugeKind,
  type GaugeReading,
  GAUGE_UNITS,
  type GaugeUnit,
  GAUGES,
  type Simulated,
  simulatedReading,
  wedgeText,
} from '../../core/bench';
import { useDisplay } from '../app/display';
import { problemText, useSendReadingMutation } from '../app/api';
import { Choice } from '../parts/Choice';
import { Screen } from '../parts/layout';
import { NumberField } from '../parts/NumberField';

const EVERY_MS = 2000;

const KINDS: Record<GaugeKindName, GaugeKind> = GAUGES;

/** A bench of simulated gauges: each sends what it “reads” as a real one would, with scatter, drift and a wrong unit now and then. */
export function Gauges() {
  const [kind, setKind] = useState<GaugeKindName>('caliper');
  return (
    <Screen className="flex flex-col gap-4">
      <h1 className="text-[20px] font-semibold">Simulated gauges</h1>
      <p className="max-w-3xl">
        These send readings as a gauge on the network does, to try out reading back at the bench. A real one
        sends the same line of JSON to <code>/api/gauges</code>; one that types into the field that waits
        needs nothing at all.
      </p>
      <Choice
        label="Which gauge"
        className="w-64"
        value={kind}
        options={GAUGE_KIND_NAMES.map((value) => ({ value, label: GAUGES[value].name }))}
        onChange={(value) => setKind(value as GaugeKindName)}
      />
      <One key={kind} kind={kind} />
    </Screen>
  );
}

/** What a gauge speaks in where a shop reads inches. */
const IN_INCHES: readonly GaugeUnit[] = ['in', 'lb', 'F'];
/** To four places: what a setting shows. */
const short = (value: number): number => Number(value.toFixed(4));

function One({ kind }: { kind: GaugeKindName }) {
  const { name, least, most, noise, units } = KINDS[kind];
  const inches = useDisplay().system === 'inch';
  const [how, setHow] = useState<Simulated>({
    true: Math.round((least + most) / 8),
    noise,
    drift: 0,
    wrongOneIn: 0,
    unit: units.find((unit) => inches && IN_INCHES.includes(unit)) ?? units[0],
  });
  const [sent, setSent] = useState<GaugeReading[]>([]);
  const [reason, setReason] = useState<string>();
  const [running, setRunning] = useState(false);
  const nth = useRef(0);
  const [send] = useSendReadingMutation();
  const read = async () => {
    const reading = simulatedReading(`${name} 1`, kind, how, nth.current, Math.random);
    nth.current += 1;
    const answer = await send(reading);
    if ('error' in answer) setReason(problemText(answer.error));
    else {
      setReason(undefined);
      setSent((all) => [reading, ...all].slice(0, 8));
    }
  };
  const latest = useRef(read);
  latest.current = read;
  useEffect(() => {
    if (!running) return undefined;
    const timer = setInterval(() => void latest.current(), EVERY_MS);
    return () => clearInterval(timer);
  }, [running]);
  const set = (change: Partial<Simulated>) => setHow((now) => ({ ...now, ...change }));
  const { times, plus } = GAUGE_UNITS[how.unit];
  // Settings stand in the unit that it speaks in; a difference has no beginning of its scale.
  const field = (label: string, setting: 'true' | 'noise' | 'drift', from: number, to: number) => {
    const shift = setting === 'true' ? plus : 0;
    const shown = (base: number) => short((base - shift) / times);
    return (
      <NumberField
        label={`${label}, ${how.unit}`}
        value={shown(how[setting])}
        least={shown(from)}
        most={shown(to)}
        onChange={(value) => set({ [setting]: value * times + shift })}
      />
    );
  };
  return (
    <section aria-label={name} className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end gap-4">
        {field('True value', 'true', least, most)}
        {field('Scatter', 'noise', 0, most / 10)}
        {field('Drift each time', 'drift', -most / 100, most / 100)}
        <NumberField
          label="Wrong unit, one in"
          value={how.wrongOneIn}
          least={0}
          most={100}
          whole
          onChange={(wrongOneIn) => set({ wrongOneIn })}
        />
        {units.length > 1 && (
          <Choice
            label="Speaks in"
            className="w-28"
            value={how.unit}
            options={units.map((value) => ({ value, label: value }))}
            onChange={(value) => set({ unit: value as GaugeUnit })}
          />
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="action action-main h-12 px-5" onClick={() => void read()}>
          Send a reading
        </button>
        <button
          type="button"
          className="action h-12 px-5"
          aria-pressed={running}
          onClick={() => setRunning(!running)}
        >
          {running ? 'Stop sending' : 'Send one every two seconds'}
        </button>
      </div>
      {reason && (
        <p role="alert" className="text-red">
          {reason}
        </p>
      )}
      {sent.length > 0 && (
        <ol aria-label="Sent" className="rule">
          {sent.map((reading, i) => (
            <li key={sent.length - i}>{wedgeText(reading)}</li>
          ))}
        </ol>
      )}
    </section>
  );
}
