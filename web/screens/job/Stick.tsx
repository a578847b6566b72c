import { type KeyboardEvent, memo, useEffect, useMemo, useRef } from 'react';
import { type BuildDocument, type Finding, type Step, DIMENSIONS } from '../../../core/document';
import type { Outlook } from '../../../core/review';
import type { JobOutlook } from '../../../core/view';
import { type Lath, laths, stepName } from '../../../core/steps';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch } from '../../app/store';
import { Measure } from '../../parts/Measure';
import { LathView } from './LathView';
import { TargetTable } from './TargetTable';
import { useEdit } from './use-edit';

/** The story stick: a lath for each line of work, the one worked on drawn large, and the answer at its end. */
export const Stick = memo(function Stick({
  build,
  outlook,
  chosen,
}: {
  build: BuildDocument;
  outlook: JobOutlook;
  chosen: string | undefined;
}) {
  const dispatch = useAppDispatch();
  const display = useDisplay();
  const edit = useEdit();
  const all = useMemo(() => laths(build), [build]);
  const open = all.find((lath) => lath.steps.some(({ id }) => id === chosen)) ?? all[all.length - 1];
  const stepIds = build.steps.map(({ id }) => id);
  // The focus goes along to the mark that a key went to, which may lie on another lath, and to the next of one that is gone.
  const follow = useRef(false);
  useEffect(() => {
    if (!follow.current || !chosen) return;
    const mark = document.getElementById(`mark-${chosen}`);
    if (!mark) return;
    follow.current = false;
    mark.focus();
  }, [chosen, build]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    // Where the focus is, not what is chosen: the two differ once somebody tabs on.
    const under = (event.target as Element).closest('[data-step]')?.getAttribute('data-step');
    const step = build.steps.find(({ id }) => id === (under ?? chosen));
    if (step && event.key.toLowerCase() === 'a') {
      event.preventDefault();
      dispatch(jobActions.addingAt({ after: step.id }));
    } else if (step && event.key.toLowerCase() === 'o') {
      edit({ do: 'setStep', step: step.id, change: { off: step.off ? undefined : true } });
    } else if (step && (event.key === 'Delete' || event.key === 'Backspace')) {
      event.preventDefault();
      follow.current = true;
      edit({ do: 'removeStep', step: step.id });
    }
    const at = step ? stepIds.indexOf(step.id) : -1;
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: stepIds.length - 1 }[event.key];
    if (to === undefined || at < 0) return;
    event.preventDefault();
    const next = stepIds[Math.min(stepIds.length - 1, Math.max(0, to))];
    follow.current = next !== chosen;
    dispatch(jobActions.stepChosen(next));
    if (!follow.current) document.getElementById(`mark-${next}`)?.focus();
  };
  return (
    <div className="flex items-stretch gap-5 max-desk:sticky max-desk:top-0 max-desk:z-20 max-desk:flex-col max-desk:gap-1 max-desk:bg-paper">
      <nav
        aria-label="Story stick"
        id="stick"
        tabIndex={-1}
        className="isolate min-w-0 flex-1"
        onKeyDown={onKeyDown}
      >
        {all.map((lath) =>
          lath === open ? (
            <LathView
              key={lath.id}
              lath={lath}
              build={build}
              outlook={outlook}
              chosen={chosen}
              display={display}
              onChoose={(id) => dispatch(jobActions.stepChosen(id))}
              onAdd={(place) => dispatch(jobActions.addingAt(place))}
            />
          ) : (
            <ThinLath
              key={lath.id}
              lath={lath}
              findings={outlook.findings}
              size={lastSize(lath, outlook)}
              onOpen={() => dispatch(jobActions.stepChosen(lath.steps[lath.steps.length - 1].id))}
            />
          ),
        )}
      </nav>
      <TargetTable build={build} outlook={outlook} chosen={chosen} />
    </div>
  );
});

const lastSize = (lath: Lath, outlook: Outlook): readonly number[] =>
  lath.steps
    .map(({ id }) => outlook.steps.find((step) => step.id === id))
    .findLast((step) => step !== undefined)?.greatest ?? [];

/** A line of work that is not being looked at: a thin lath with its name, its size and its rings. */
function ThinLath({
  lath,
  findings,
  size,
  onOpen,
}: {
  lath: Lath;
  findings: readonly Finding[];
  size: readonly number[];
  onOpen: () => void;
}) {
  const display = useDisplay();
  const own = findings.filter(
    (finding) => lath.steps.some(({ id }) => id === finding.step) && finding.severity !== 'note',
  );
  const names = lath.steps.map((step: Step) => stepName(step)).join(', ');
  return (
    <button
      type="button"
      onClick={onOpen}
      title={names}
      className="group flex h-6 w-full items-center pl-[46px] text-left text-[12.5px]"
    >
      <span className="bg-lath border-lath-line group-hover:border-chalk flex h-[17px] w-full items-center gap-3 rounded-[2px] border px-2.5 leading-none">
        <span className="font-medium">{lath.name}</span>
        <span className="text-ink/80">
          {size.map((mm, axis) => (
            <span key={DIMENSIONS[axis]}>
              {axis > 0 && ' × '}
              <Measure value={mm} display={display} />
            </span>
          ))}
        </span>
        {lath.into && <span className="text-ink/75 ml-auto">glued in ›</span>}
        {own.length > 0 && (
          <span className="border-red text-red rounded-full border-[1.5px] px-1.5 font-semibold">
            {own.length}
          </span>
        )}
      </span>
    </button>
  );
}
