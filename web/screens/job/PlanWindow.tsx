import { useMemo, useState } from 'react';
import { type Brief, type BuildDocument, isRefused, phraseText } from '../../../core/document';
import { plannedAgain } from '../../../core/edit';
import { patternOf } from '../../../core/plan';
import { useDisplay } from '../../app/display';
import { Window } from '../../parts/Window';
import { useReports } from '../../parts/reported';
import { PlanView } from '../PlanView';
import { BriefFields } from '../brief/BriefFields';
import { StockAllows } from './StockAllows';
import { useEdit } from './use-edit';

/** The brief a job was planned from, to plan it again in another size; what was done by hand is carried over. */
export function PlanWindow({
  id,
  build,
  brief: before,
  onClose,
}: {
  id: string;
  build: BuildDocument;
  brief: Brief;
  onClose: () => void;
}) {
  const display = useDisplay();
  const edit = useEdit();
  const [brief, setBrief] = useState(before);
  const { reasons, collect } = useReports();
  const plan = useMemo(() => plannedAgain(build, brief), [build, brief]);
  const refused = isRefused(plan);
  return (
    <Window
      title={`${patternOf(brief.pattern).name}: plan it again`}
      description="Sizes, woods and measures of the pattern. Steps, lines, turns, woods, exceptions and splits put in by hand stay where there is still a place for them; so does how glue-ups are done."
      open
      wide
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-5 pt-1">
        <div className="flex flex-col gap-3">
          {collect(
            <BriefFields
              brief={brief}
              shop={build.shop}
              display={display}
              onChange={(change) => setBrief((now) => ({ ...now, ...change }))}
            />,
          )}
        </div>
        <div className="flex min-w-0 flex-col gap-2.5">
          {reasons.length > 0 ? (
            <p className="text-red">Not planned until this can be read. {reasons.join('. ')}.</p>
          ) : !refused ? (
            <PlanView build={plan.build} display={display} height={190} />
          ) : (
            <p role="alert" className="text-red">
              {phraseText(plan.refused, display)}
            </p>
          )}
          {!refused && (
            <StockAllows
              id={id}
              build={plan.build}
              display={display}
              onUse={(change) => setBrief((now) => ({ ...now, ...change }))}
            />
          )}
          {!refused && plan.lost.length > 0 && (
            <p role="alert" className="text-red text-[14px]">
              Cannot be kept: {plan.lost.join('; ')}.
            </p>
          )}
          <button
            type="button"
            className="action action-main self-start"
            disabled={refused || reasons.length > 0}
            onClick={() => {
              edit({ do: 'replan', change: brief });
              onClose();
            }}
          >
            Plan it so
          </button>
        </div>
      </div>
    </Window>
  );
}
