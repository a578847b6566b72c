import type { BuildDocument, Step } from '../../../core/build';
import type { StepOutlook } from '../../../core/review';
import { useDisplay } from '../../app/display';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import { useEdit, useSettle } from './use-edit';

const NAMES = ['Length', 'Width', 'Thickness'] as const;

/** What rule and caliper said after this step; it takes the prediction's place, which is kept beside it. */
export function Measured({ build, step, seen }: { build: BuildDocument; step: Step; seen: StepOutlook }) {
  const display = useDisplay();
  const edit = useEdit();
  const settle = useSettle();
  const readings = build.readings.filter((reading) => reading.step === step.id && !reading.piece);
  return (
    <details open={readings.length > 0} className="group">
      <summary className="label cursor-pointer py-1">Measured otherwise</summary>
      <div className="grid grid-cols-3 gap-2 pt-1">
        {NAMES.map((name, i) => {
          const axis = i as 0 | 1 | 2;
          const reading = readings.find(({ dimension }) => dimension === name.toLowerCase());
          return (
            <div key={name}>
              <LengthField
                label={`${name} measured`}
                value={reading?.measured ?? { mm: seen.greatest[axis] }}
                display={display}
                rule={{ minMm: 0.1, maxMm: 100_000 }}
                stepMm={build.shop.settingStep.mm}
                onChange={(measured) =>
                  edit({ do: 'measure', step: step.id, axis, measured }, `${step.id}.measured.${axis}`)
                }
                onSettled={settle}
              />
              {reading && (
                <p className="text-graphite pt-0.5 text-[12.5px]">
                  predicted{' '}
                  <Measure value={seen.predicted?.[axis] ?? seen.greatest[axis]} display={display} />{' '}
                  <button
                    type="button"
                    className="text-chalk underline"
                    onClick={() => edit({ do: 'measure', step: step.id, axis })}
                  >
                    take back
                  </button>
                </p>
              )}
            </div>
          );
        })}
      </div>
    </details>
  );
}
