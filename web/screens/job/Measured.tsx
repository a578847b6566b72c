import { type BuildDocument, type Step, DIMENSIONS } from '../../../core/document';
import type { StepOutlook } from '../../../core/review';
import { useDisplay } from '../../app/display';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import { useEdit, useSettle } from './use-edit';

const NAMES = { length: 'Length', width: 'Width', thickness: 'Thickness' } as const;

/** What rule and caliper said after this step; it takes the prediction's place, which is kept beside it. */
export function Measured({ build, step, seen }: { build: BuildDocument; step: Step; seen: StepOutlook }) {
  const display = useDisplay();
  const edit = useEdit();
  const settle = useSettle();
  const own = build.readings.filter((reading) => reading.step === step.id);
  const readings = own.filter((reading) => !reading.piece);
  return (
    <details open={own.length > 0} className="group">
      <summary className="label cursor-pointer py-1">Enter a measurement</summary>
      <div className="grid grid-cols-3 gap-2 pt-1">
        {DIMENSIONS.map((dimension, axis) => {
          const reading = readings.find((each) => each.dimension === dimension);
          return (
            <div key={dimension}>
              <LengthField
                label={`${NAMES[dimension]} measured`}
                value={reading?.measured ?? { mm: seen.greatest[axis] }}
                display={display}
                rule={{ minMm: 0.1, maxMm: 100_000 }}
                stepMm={build.shop.settingStep.mm}
                onChange={(measured) =>
                  edit(
                    { do: 'measure', step: step.id, dimension, measured },
                    `${step.id}.measured.${dimension}`,
                  )
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
                    onClick={() => edit({ do: 'measure', step: step.id, dimension })}
                  >
                    take back
                  </button>
                </p>
              )}
            </div>
          );
        })}
      </div>
      {seen.leaves && <Leaves build={build} step={step} leaves={seen.leaves} />}
    </details>
  );
}

/** Leaves of a resaw one by one, the lowest first: a cut off the middle makes one thicker and the other thinner. */
function Leaves({
  build,
  step,
  leaves,
}: {
  build: BuildDocument;
  step: Step;
  leaves: NonNullable<StepOutlook['leaves']>;
}) {
  const display = useDisplay();
  const edit = useEdit();
  const settle = useSettle();
  const read = (piece: string) =>
    build.readings.find((reading) => reading.step === step.id && reading.piece === piece)?.measured;
  return (
    <section aria-label="Leaves measured" className="grid grid-cols-3 gap-2 pt-2">
      <p className="text-graphite col-span-3 text-[13px]">
        Thickness of each leaf, the lowest first. What one has too much the others have too little.
      </p>
      {leaves.map(({ id, mm }, i) => (
        <div key={id}>
          <LengthField
            label={`Leaf ${i + 1} measured`}
            value={read(id) ?? { mm }}
            display={display}
            rule={{ minMm: 0.1, maxMm: 2000 }}
            stepMm={build.shop.settingStep.mm}
            onChange={(measured) =>
              edit(
                { do: 'measure', step: step.id, dimension: 'thickness', measured, piece: id },
                `${step.id}.measured.${id}`,
              )
            }
            onSettled={settle}
          />
          {read(id) && (
            <button
              type="button"
              className="text-chalk text-[12.5px] underline"
              aria-label={`Take leaf ${i + 1} back`}
              onClick={() => edit({ do: 'measure', step: step.id, dimension: 'thickness', piece: id })}
            >
              take back
            </button>
          )}
        </div>
      ))}
    </section>
  );
}
