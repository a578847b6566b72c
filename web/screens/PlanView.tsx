import { useMemo } from 'react';
import type { BuildDocument } from '../../core/document';
import { compareTarget, findingsOf, woodShare } from '../../core/review';
import { run } from '../../core/run';
import { counted, type Display, lengthText } from '../../core/units';
import { cutRows, slicedPanels, finishedVolume, sizeRange } from '../../core/view';
import { JobPicture } from '../drawing/JobPicture';
import { Measure } from '../parts/Measure';
import { Words } from '../parts/Words';

/** What the plan comes to, before it is made. */
export function PlanView({
  build,
  display,
  height = 330,
}: {
  build: BuildDocument;
  display: Display;
  height?: number;
}) {
  const timeline = useMemo(() => run(build), [build]);
  const findings = useMemo(() => findingsOf(build, timeline), [build, timeline]);
  const comparison = compareTarget(build, timeline);
  const pieces = timeline.finished?.pieces.length ?? 0;
  const inPiece = finishedVolume(timeline);
  return (
    <>
      <div style={{ height }}>
        <JobPicture build={build} />
      </div>
      <h2 className="text-[17px] font-semibold">
        {pieces > 1 ? `${pieces} come out at ` : 'Comes out at '}
        {comparison?.map((row, i) => (
          <span key={row.dimension}>
            {i > 0 && ' × '}
            <Measure value={row.predictedMm} display={display} />
          </span>
        ))}
      </h2>
      <ul className="flex list-disc flex-col gap-1 pl-5">
        {build.assemblies.map((assembly) => (
          <li key={assembly.id}>
            {build.assemblies.length > 1 && `${assembly.name}: `}
            <StripWords slots={assembly.slots} display={display} />
          </li>
        ))}
        {cutRows(build, timeline).map(({ step, count, words, mm }) => (
          <li key={step}>
            {count} {words} <Measure value={mm} display={display} unit />
          </li>
        ))}
        <Panels build={build} timeline={timeline} display={display} />
        <li>
          {[counted(timeline.joints.count, 'joint'), woodShare(build, timeline.woodInMm3, inPiece)?.words]
            .filter(Boolean)
            .join('; ')}
        </li>
        <li>
          {counted(build.steps.length, 'step')}; settings are rounded up to{' '}
          <Measure value={build.shop.settingStep.mm} display={display} unit />, the trim takes the rounding
        </li>
      </ul>
      {findings.map((finding) => (
        <p
          key={finding.code + finding.step + finding.dimension}
          className={`border-l-[3px] p-3 text-[14px] ${finding.severity === 'note' ? 'border-line' : 'border-red bg-red-wash'}`}
        >
          <Words phrase={finding.message} display={display} />
        </p>
      ))}
    </>
  );
}

function StripWords({
  slots,
  display,
}: {
  slots: BuildDocument['assemblies'][number]['slots'];
  display: Display;
}) {
  const range = (name: 'width' | 'length' | 'thickness') => {
    const { least, most } = sizeRange(slots, name);
    const text = lengthText(most, display);
    return least === undefined ? text : `${lengthText(least, display)} to ${text}`;
  };
  return (
    <>
      {counted(slots.length, 'strip')}, ripped {range('width')} wide, {range('length')} long, from wood{' '}
      {range('thickness')} thick
    </>
  );
}

/** Sizes of the panels that are sliced: what must pass the planer and lie on the saw. */
function Panels({
  build,
  timeline,
  display,
}: {
  build: BuildDocument;
  timeline: ReturnType<typeof run>;
  display: Display;
}) {
  return slicedPanels(build, timeline).map(({ step, count, size }) => (
    <li key={`panel of ${step}`}>
      {count > 1 ? `${count} panels, each ` : 'sliced from a panel '}
      {size.map((mm) => lengthText(mm, display)).join(' × ')}
    </li>
  ));
}
