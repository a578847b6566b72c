import type { BuildDocument, Finding } from '../../../core/document';
import { stepTitle } from '../../../core/steps';
import { counted } from '../../../core/units';
import { alikeFindings, findingKey } from '../../../core/view';
import { jobActions } from '../../app/job';
import { useAppDispatch } from '../../app/store';
import { Window } from '../../parts/Window';
import { FindingNote } from './FindingNote';

/** All that is to be looked at in a job, in the order of the work, each with its ways out. */
export function FindingsWindow({
  build,
  list,
  onClose,
}: {
  build: BuildDocument;
  list: readonly Finding[];
  onClose: () => void;
}) {
  const dispatch = useAppDispatch();
  return (
    <Window title={`${counted(list.length, 'thing')} to look at`} open onClose={onClose} wide>
      {list.length === 0 && <p>Nothing stands in the way of this job.</p>}
      <ol className="flex flex-col gap-4">
        {alikeFindings(list).map(({ finding, steps }, i) => {
          const step = build.steps.find(({ id }) => id === finding.step);
          const others = steps.slice(1).flatMap((id) => build.steps.find((each) => each.id === id) ?? []);
          return (
            <li key={`${findingKey(finding)}${i}`}>
              <h3 className="flex items-baseline justify-between gap-3 pb-1 font-semibold">
                {step ? stepTitle(build, step) : 'The whole job'}
                {step && (
                  <button
                    type="button"
                    className="text-chalk text-[14px] font-medium underline"
                    onClick={() => {
                      dispatch(jobActions.stepChosen(step.id));
                      onClose();
                    }}
                  >
                    Go to this step
                  </button>
                )}
              </h3>
              <FindingNote finding={finding} />
              {others.length > 0 && (
                <p className="text-graphite flex flex-wrap gap-x-3 pt-1 text-[14px]">
                  The same on {counted(others.length, 'more step')}, each with its own ways out:
                  {others.map((other) => (
                    <button
                      key={other.id}
                      type="button"
                      className="press text-chalk underline"
                      onClick={() => {
                        dispatch(jobActions.stepChosen(other.id));
                        onClose();
                      }}
                    >
                      {stepTitle(build, other)}
                    </button>
                  ))}
                </p>
              )}
            </li>
          );
        })}
      </ol>
    </Window>
  );
}
