import { useState } from 'react';
import type { PaceWay } from '../../../../core/glueup';
import { paceBasis } from '../../../../core/kit';
import { massText, minutesText, temperatureText } from '../../../../core/units';
import { useDisplay } from '../../../app/display';
import { PaceBar } from '../../../drawing/PaceBar';
import { Toggle } from '../../../parts/Toggle';
import { ReadyList } from './ReadyList';
import { StagesWindow } from './StagesWindow';
import { Fact, type GluePart, Say, usePlanGlue, Why } from './parts';

/** Whether the acts are done before the glue sets, what would help, and what must lie ready. */
export function PaceView({ build, step, planned }: GluePart) {
  const display = useDisplay();
  const [stages, setStages] = useState(false);
  const { rehearsal, glueUp, staging } = planned;
  const set = usePlanGlue(step);
  const take = (way: PaceWay) => {
    if (way.kind === 'hands') set({ hands: 2 });
    else if (way.kind === 'applicator') set({ applicator: way.applicator });
    else if (way.kind === 'adhesive') set({ adhesive: way.adhesive });
    else if (way.kind === 'stages') setStages(true);
  };
  const pct = (share: number) => `${Math.round(share * 100)}\u00a0%`;
  return (
    <>
      {planned.why.map((words, i) => (
        <p key={i} className="text-[13.5px]">
          <Say phrase={words} />
        </p>
      ))}
      <PaceBar rehearsal={rehearsal} />
      <dl>
        <Fact name="From first glue to last clamp">{minutesText(rehearsal.totalMin)}</Fact>
        {rehearsal.times && (
          <>
            <Fact name="Longest open, of the open time">
              {minutesText(rehearsal.openUsedMin)}, {pct(rehearsal.openShare)}
            </Fact>
            <Fact name="Longest to pressure, of the closed time">
              <span className={rehearsal.fits ? '' : 'text-red'}>
                {minutesText(rehearsal.closedUsedMin)}, {pct(rehearsal.closedShare)}
              </span>
            </Fact>
          </>
        )}
        <Fact name="To lift">{massText(glueUp.massKg, display)}</Fact>
      </dl>
      <Toggle
        label="Pairs of hands"
        value={String(rehearsal.hands)}
        options={[
          { value: '1', label: 'One' },
          { value: '2', label: 'Two' },
        ]}
        onChange={(hands) => set({ hands: hands === '2' ? 2 : 1 })}
      />
      {rehearsal.ways.length > 0 && (
        <section aria-label="What would help">
          <h3 className="label pb-1">What would help, and the time of the glue it then uses</h3>
          <ul className="flex flex-col gap-1">
            {rehearsal.ways.map((way) => (
              <li key={way.words} className="flex items-center justify-between gap-2 text-[14px]">
                <span>
                  {way.words}
                  {way.celsius !== undefined && ` (${temperatureText(way.celsius, display)})`}
                  <span className={`rule ml-1.5 ${way.share <= 1 ? 'text-green' : 'text-graphite'}`}>
                    {way.share <= 1 ? '✓ ' : ''}
                    {pct(way.share)}
                  </span>
                </span>
                {way.kind !== 'cooler' && (way.kind !== 'stages' || staging) && (
                  <button type="button" className="action h-7" onClick={() => take(way)}>
                    {way.kind === 'stages' ? 'See' : 'Do it'}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {staging && (
        <button type="button" className="action self-start" onClick={() => setStages(true)}>
          Ways to glue it up
        </button>
      )}
      {stages && staging && (
        <StagesWindow
          build={build}
          step={step}
          planned={planned}
          staging={staging}
          onClose={() => setStages(false)}
        />
      )}
      <Why>
        Minutes are {paceBasis(build.shop)}; the glue’s times are the cautious end of its class at the shop’s
        air. A dry run without glue is timed under Rehearse.
      </Why>
      <ReadyList items={planned.ready} />
    </>
  );
}
