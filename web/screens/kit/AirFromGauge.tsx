import { Gauge } from 'lucide-react';
import { useEffect, useState } from 'react';
import { airOf, isGaugeReading } from '../../../core/bench';
import type { Climate } from '../../../core/kit';
import { temperatureText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { onTold } from '../../app/events';

/** What a gauge of the room read of its air, offered to the kit; other gauges say nothing here. */
export function AirFromGauge({ onTake }: { onTake: (air: Partial<Climate>) => void }) {
  const [heard, setHeard] = useState<{ gauge: string; air: Partial<Climate> }>();
  useEffect(
    () =>
      onTold(({ kind, data }) => {
        if (kind !== 'reading' || !isGaugeReading(data)) return;
        const air = airOf(data);
        if (air) setHeard({ gauge: data.gauge, air });
      }),
    [],
  );
  const display = useDisplay();
  if (!heard) return null;
  const { temperatureC, humidityPct } = heard.air;
  return (
    <p role="status" className="flex flex-wrap items-center gap-3" data-testid="air-gauge">
      <Gauge size={16} aria-hidden className="text-graphite" />
      {heard.gauge}:{' '}
      <span className="rule">
        {temperatureC === undefined ? `humidity ${humidityPct} %` : temperatureText(temperatureC, display)}
      </span>
      <button
        type="button"
        className="action"
        onClick={() => {
          onTake(heard.air);
          setHeard(undefined);
        }}
      >
        Take it
      </button>
    </p>
  );
}
