import { useMemo } from 'react';
import { run, type BuildDocument } from '../../core/build';
import { compareTarget, review } from '../../core/review';
import type { Display } from '../../core/units';
import { JobPicture } from '../drawing/JobPicture';
import { Measure } from '../parts/Measure';
import { Words } from '../parts/Words';

/** What the plan comes to, before it is made. */
export function PlanView({ build, display }: { build: BuildDocument; display: Display }) {
  const timeline = useMemo(() => run(build), [build]);
  const findings = useMemo(() => review(build, timeline), [build, timeline]);
  const comparison = compareTarget(build, timeline);
  const strips = build.assemblies.flatMap(({ slots }) => slots);
  const slice = build.steps.find((step) => step.kind === 'slice');
  const widest = Math.max(...strips.map(({ width }) => width.mm));
  const narrowest = Math.min(...strips.map(({ width }) => width.mm));
  const mm = (value: number) => <Measure value={value} display={display} unit />;
  return (
    <>
      <div className="h-[330px]">
        <JobPicture build={build} />
      </div>
      <h2 className="text-[17px] font-semibold">
        Comes out at{' '}
        {comparison?.map((row, i) => (
          <span key={row.dimension}>
            {i > 0 && ' × '}
            <Measure value={row.predictedMm} display={display} />
          </span>
        ))}
      </h2>
      <ul className="flex list-disc flex-col gap-1 pl-5">
        <li>
          {strips.length} strips,{' '}
          {build.assemblies.length > 1 && <>in {build.assemblies.length} sections, </>}ripped{' '}
          {narrowest < widest - 0.01 ? (
            <>
              {mm(narrowest)} and {mm(widest)}
            </>
          ) : (
            mm(widest)
          )}{' '}
          wide, {mm(strips[0].length.mm)} long, from wood {mm(strips[0].thickness.mm)} thick
        </li>
        {slice?.kind === 'slice' && (
          <li>
            {slice.count} slices of {mm(slice.thickness.mm)}
          </li>
        )}
        <li>
          {timeline.joints.count} joints,{' '}
          {Math.round(
            (100 * (comparison ? comparison.reduce((v, row) => v * row.predictedMm, 1) : 0)) /
              timeline.woodInMm3,
          )}{' '}
          % of the wood is in the piece
        </li>
        <li>
          {build.steps.length} steps; settings are rounded up to {mm(build.shop.settingStep.mm)}, the trim
          takes the rounding
        </li>
      </ul>
      {findings.map((finding) => (
        <p
          key={finding.code + finding.step}
          className="border-red bg-red-wash border-l-[3px] p-3 text-[14px]"
        >
          <Words phrase={finding.message} display={display} />
        </p>
      ))}
    </>
  );
}
