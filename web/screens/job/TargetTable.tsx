import { Check, Pencil, X } from 'lucide-react';
import { useState } from 'react';
import { type Aim, type BuildDocument, DIMENSIONS, targetOfStep } from '../../../core/document';
import { woodShare } from '../../../core/review';
import type { JobOutlook } from '../../../core/view';
import { lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { How } from '../../parts/How';
import type { HowOf } from '../../parts/how-of';
import { Measure } from '../../parts/Measure';
import { lazily } from '../../parts/lazily';

const TargetsWindow = lazily(() => import('./TargetsWindow'), 'TargetsWindow');

const AIM_SIGN: Record<Aim['aim'], string> = { fixed: '', atLeast: '≥ ', atMost: '≤ ', free: 'free' };

/** At the right end of the stick: asked for, what comes out, and whether that fits. */
export function TargetTable({
  build,
  outlook,
  chosen,
}: {
  build: BuildDocument;
  outlook: JobOutlook;
  chosen: string | undefined;
}) {
  const [open, setOpen] = useState(false);
  const display = useDisplay();
  const step = build.steps.find(({ id }) => id === chosen);
  const target = targetOfStep(build, step) ?? build.targets[0];
  const comparison = outlook.wanted.find((each) => each.target === target?.id)?.comparison;
  const share = comparison && woodShare(build, outlook.woodInMm3, outlook.finishedMm3);
  const how: HowOf = ({ workedSize, workedTolerance, workedShare }) => [
    ...DIMENSIONS.map((dimension) => workedSize(build, dimension, target)),
    ...DIMENSIONS.map((dimension) => workedTolerance(build, dimension, target)),
    workedShare(build),
  ];
  if (!target) return null;
  return (
    <div className="w-[206px] shrink-0 self-end max-desk:w-full" data-testid="target">
      {comparison && (
        <p className="desk:hidden flex items-center gap-1.5 px-1 text-[15px] font-semibold">
          <span className="text-graphite text-[13px] font-medium">comes out</span>
          {comparison.map(({ dimension, predictedMm, fits }, i) => (
            <span key={dimension} className={fits ? '' : 'text-red'}>
              {i > 0 && <span className="text-graphite font-medium">× </span>}
              <Measure value={predictedMm} display={display} />
              {!fits && <X size={15} className="ml-0.5 inline" aria-label="not as asked for" />}
            </span>
          ))}
          {comparison.every(({ fits }) => fits) && (
            <Check size={17} className="text-green" aria-label="as asked for" />
          )}
        </p>
      )}
      <table className="w-full text-[15px] max-desk:hidden">
        <thead>
          <tr className="text-graphite text-left text-[12.5px]">
            <th className="h-[22px] font-medium">
              <span className="sr-only">Dimension and what is </span>asked for
            </th>
            <th className="font-medium">comes out</th>
            <th>
              <span className="sr-only">Fits</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {DIMENSIONS.map((dimension, i) => {
            const aim = target[dimension];
            const row = comparison?.[i];
            return (
              <tr key={dimension} className="h-[27px]">
                <td className="font-semibold whitespace-nowrap">
                  <span className="sr-only">{dimension} </span>
                  {AIM_SIGN[aim.aim]}
                  {aim.value && aim.aim !== 'free' && <Measure value={aim.value} display={display} />}
                </td>
                <td className={row && !row.fits ? 'text-red' : ''}>
                  {row ? (
                    <span className={row.fits ? '' : 'pencil-ring'}>
                      <Measure value={row.predictedMm} display={display} />
                    </span>
                  ) : (
                    '–'
                  )}
                </td>
                <td className="w-6 text-right">
                  {row &&
                    (row.fits ? (
                      <Check size={18} className="text-green ml-auto" aria-label="fits" />
                    ) : (
                      <X
                        size={18}
                        className="text-red ml-auto"
                        aria-label={`off by ${lengthText(row.differenceMm, display)}`}
                      />
                    ))}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="text-graphite flex h-6 items-center gap-1.5 pt-1 text-[12.5px]">
        <button
          type="button"
          className="text-chalk flex h-6 w-6 shrink-0 items-center justify-center"
          aria-label="What is wanted"
          title="What is wanted: names, numbers and sizes of the pieces"
          onClick={() => setOpen(true)}
        >
          <Pencil size={13} />
        </button>
        {comparison && <How of={how} what="Sizes that come out" />}
        <span className="truncate">
          {build.targets.length > 1
            ? `${target.purpose || 'this piece'}, ${target.quantity} wanted`
            : share?.words}
        </span>
      </p>
      {open && <TargetsWindow build={build} outlook={outlook} onClose={() => setOpen(false)} />}
    </div>
  );
}
