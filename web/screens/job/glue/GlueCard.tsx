import type { BuildDocument, Finding } from '../../../../core/document';
import type { PlannedGlueUp } from '../../../../core/glueup';
import type { GlueStep } from '../../../../core/steps';
import { useAppSelector } from '../../../app/store';
import { FindingNote } from '../FindingNote';
import { AfterView } from './AfterView';
import { AidsView } from './AidsView';
import { BottleView } from './BottleView';
import { ClampsView } from './ClampsView';
import { GLUE_VIEWS } from './views';
import { PaceView } from './PaceView';

/** What belongs to the chosen part of a glue-up: its findings, settings and readings. */
export function GlueCard({
  build,
  step,
  planned,
  findings,
}: {
  build: BuildDocument;
  step: GlueStep;
  planned: PlannedGlueUp;
  findings: readonly Finding[];
}) {
  const view = useAppSelector(({ job }) => job.glueView);
  const codes = GLUE_VIEWS.find(({ id }) => id === view)?.codes ?? [];
  const shown = findings.filter(({ code }) => codes.includes(code));
  return (
    <>
      {shown.slice(0, 4).map((finding, i) => (
        <FindingNote key={`${finding.code}${i}`} finding={finding} />
      ))}
      {shown.length > 4 && <p className="text-red text-[13.5px]">and {shown.length - 4} more of the kind.</p>}
      {view === 'clamps' && <ClampsView build={build} step={step} planned={planned} />}
      {view === 'glue' && <BottleView build={build} step={step} planned={planned} />}
      {view === 'aids' && <AidsView build={build} step={step} planned={planned} />}
      {view === 'pace' && <PaceView build={build} step={step} planned={planned} />}
      {view === 'after' && <AfterView build={build} step={step} planned={planned} />}
    </>
  );
}
