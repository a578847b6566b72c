import { useMemo, useState } from 'react';
import { type Brief, type BuildDocument, type Edit, isRefused, phraseText } from '../../../../core/document';
import { applyEdit } from '../../../../core/edit';
import { fit, patternOf, startingBrief } from '../../../../core/plan';
import { useDisplay } from '../../../app/display';
import { useReports } from '../../../parts/reported';
import { BriefFields } from '../../brief/BriefFields';
import { PatternPicker } from '../../brief/PatternPicker';
import { PlanView } from '../../PlanView';
import { useEdit } from '../use-edit';

/** Another pattern in this job: planned here, with a piece wanted of its own; what it gives can be laid in anywhere. */
export function PatternLine({ build, onDone }: { build: BuildDocument; onDone: () => void }) {
  const display = useDisplay();
  const edit = useEdit();
  const { reasons, collect } = useReports();
  const [brief, setBrief] = useState<Brief>(() =>
    startingBrief('panel', build.shop, { allowances: build.brief?.allowances }),
  );
  const [typed, setTyped] = useState<string>();
  const name = typed?.trim() || patternOf(brief.pattern).name;
  const { alone, put, refused } = useMemo(() => {
    const add: Edit = { do: 'addPlan', brief, name };
    const plan = fit(brief, build.shop, { name, use: name });
    const made = applyEdit(build, add);
    return {
      alone: isRefused(plan) ? undefined : plan,
      put: isRefused(made) ? undefined : add,
      refused: isRefused(plan) ? plan.refused : isRefused(made) ? made.refused : undefined,
    };
  }, [build, brief, name]);
  return (
    <div className="grid grid-cols-2 gap-5">
      <div className="flex flex-col gap-3">
        <PatternPicker
          value={brief.pattern}
          onChange={(pattern) =>
            setBrief(startingBrief(pattern, build.shop, { allowances: brief.allowances }))
          }
        />
        <label className="label block">
          Name of the piece
          <input
            className="field mt-0.5 w-full font-sans!"
            value={typed ?? name}
            maxLength={60}
            onChange={({ target }) => setTyped(target.value)}
          />
        </label>
        {collect(
          <BriefFields
            key={brief.pattern}
            brief={brief}
            shop={build.shop}
            display={display}
            onChange={(change) => setBrief((before) => ({ ...before, ...change }))}
          />,
        )}
      </div>
      <div className="sticky top-0 flex min-w-0 flex-col gap-2.5 self-start">
        <button
          type="button"
          className="action action-main self-start"
          disabled={!put || reasons.length > 0}
          onClick={() => {
            if (put) edit(put);
            onDone();
          }}
        >
          Put it into this job
        </button>
        {reasons.length > 0 && (
          <p className="text-red">Not planned until this can be read. {reasons.join('. ')}.</p>
        )}
        {refused && (
          <p role="alert" className="text-red">
            {phraseText(refused, display)}
          </p>
        )}
        {alone && <PlanView build={alone} display={display} height={190} />}
        <p className="text-graphite text-[13.5px]">
          It comes as a line of its own, with a piece wanted of it. To make it a part of another piece, choose
          the glue-up it goes into and lay it in from the tray.
        </p>
      </div>
    </div>
  );
}
