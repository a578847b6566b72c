import { Gauge } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import {
  GAUGE_UNITS,
  type GaugeReading,
  isGaugeReading,
  type Quantity,
  wedgeText,
} from '../../../core/bench';
import { onTold } from '../../app/events';

const KEY = 'junta-gauges';
/** After a reading was taken a gauge is not heard for so long, ms: one that repeats itself fills no second piece. */
const PAUSE_MS = 800;

const remembered = (): string[] => {
  try {
    const list: unknown = JSON.parse(sessionStorage.getItem(KEY) ?? '[]');
    return Array.isArray(list) ? list.map(String) : [];
  } catch {
    // A browser that keeps nothing: it is asked again after a reload.
    return [];
  }
};

/**
 * What a gauge of the shop reads: offered to the field that waits, and from then on, where somebody says so, taken by itself. Nobody
 * at another bench finds a size in their field that they did not measure.
 */
export function FromGauge({
  of = 'length',
  onTake,
  waits,
}: {
  /** What the field that waits is for. */
  of?: Quantity;
  onTake: (typed: string, gauge: string) => void;
  /** The field can take one now. */
  waits: boolean;
}) {
  const [heard, setHeard] = useState<GaugeReading>();
  const [mine, setMine] = useState(remembered);
  const last = useRef(0);
  const take = useRef(onTake);
  take.current = onTake;
  useEffect(
    () =>
      onTold(({ kind, data }) => {
        if (kind !== 'reading' || !isGaugeReading(data)) return;
        const now = Date.now();
        const own = mine.includes(data.gauge) && GAUGE_UNITS[data.unit].of === of;
        if (!own) {
          setHeard(data);
          return;
        }
        if (!waits || now - last.current < PAUSE_MS) return;
        last.current = now;
        take.current(wedgeText(data), data.gauge);
      }),
    [mine, waits, of],
  );
  const press = (reading: GaugeReading) => {
    // What was on its way while it was pressed is the same reading once more.
    last.current = Date.now();
    onTake(wedgeText(reading), reading.gauge);
  };
  const listen = (gauges: string[]) => {
    setMine(gauges);
    setHeard(undefined);
    try {
      sessionStorage.setItem(KEY, JSON.stringify(gauges));
    } catch {
      // As above.
    }
  };
  if (!heard && mine.length === 0) return null;
  const fits = heard && GAUGE_UNITS[heard.unit].of === of;
  return (
    <div
      className="border-line flex flex-wrap items-center gap-3 border-l-4 px-3 py-1 text-[18px]"
      data-testid="gauge"
    >
      <Gauge size={20} aria-hidden className="text-graphite" />
      {heard && (
        <>
          <p role="status">
            {heard.gauge}: <span className="rule">{wedgeText(heard)}</span>
            {!fits &&
              (of === 'length'
                ? '. This is no size, and is not kept.'
                : '. This field waits for something else: it is not kept.')}
          </p>
          {fits && (
            <>
              <button
                type="button"
                className="action action-main h-12! px-4"
                onClick={() => {
                  press(heard);
                  setHeard(undefined);
                }}
              >
                Take it
              </button>
              <button
                type="button"
                className="action h-12! px-4"
                onClick={() => {
                  press(heard);
                  listen([...mine, heard.gauge]);
                }}
              >
                Take all from it here
              </button>
            </>
          )}
        </>
      )}
      {mine.length > 0 && (
        <p className="text-graphite flex flex-wrap items-center gap-3">
          Readings of {mine.join(', ')} come in here.
          <button type="button" className="action h-12! px-4" onClick={() => listen([])}>
            Stop
          </button>
        </p>
      )}
    </div>
  );
}
