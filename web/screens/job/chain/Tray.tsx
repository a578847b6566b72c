import { useMemo, useState } from 'react';
import type { BuildDocument, Step } from '../../../../core/document';
import { asGlueUp } from '../../../../core/steps';
import { counted, lengthText } from '../../../../core/units';
import { type Lying, layingIn } from '../../../../core/view';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { JobPicture } from '../../../drawing/JobPicture';
import { useEdit } from '../use-edit';

const NOTHING: readonly Lying[] = [];

/** What lies on the bench beside the chosen step, each drawn small and true, to be laid into its glue-up. */
export function Tray({ build, step }: { build: BuildDocument; step: Step }) {
  const lying = useAppSelector(({ job }) => job.outlook?.lying) ?? NOTHING;
  if (lying.length === 0) return null;
  return (
    <section
      aria-label="Also on the bench"
      className="border-line flex max-h-40 gap-3 overflow-x-auto border-t px-3 py-2"
      data-testid="tray"
    >
      {lying.map((each) => (
        <Heap key={each.output} build={build} step={step} heap={each} />
      ))}
    </section>
  );
}

const hours = new Intl.NumberFormat('en', { maximumFractionDigits: 1 });
const moment = new Intl.DateTimeFormat('en', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** Until when it is in clamps, or how long it will be. */
const clampWords = ({ hours: wanted, untilMs }: NonNullable<Lying['clamps']>): string =>
  untilMs === undefined
    ? `in clamps for ${hours.format(wanted)} h once glued`
    : untilMs > Date.now()
      ? `in clamps until ${moment.format(untilMs)}`
      : `out of clamps since ${moment.format(untilMs)}`;

/** Pieces that one step gave and that lie there. */
function Heap({ build, step, heap }: { build: BuildDocument; step: Step; heap: Lying }) {
  const display = useDisplay();
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const laid = useAppSelector(({ job }) => job.outlook?.steps.find(({ id }) => id === step.id)?.laid);
  const [every, setEvery] = useState('');
  const glue = asGlueUp(step);
  const ids = useMemo(() => heap.pieces.map(({ id }) => id), [heap.pieces]);
  const [first] = heap.pieces;
  const size = first?.size.map((mm) => lengthText(mm, display)).join(' × ');
  const one = ids.length === 1;
  const how = layingIn(build, {
    step: step.id,
    laid: laid?.map(({ piece }) => piece) ?? [],
    output: heap.output,
    pieces: ids,
    every: every === '' ? undefined : Number(every),
  });
  return (
    <div className="border-line flex shrink-0 gap-2 rounded border bg-white p-2">
      <div className="h-20 w-28 shrink-0">
        <JobPicture build={build} step={heap.step} pieces={ids} />
      </div>
      <div className="flex flex-col items-start gap-1 text-[13px]">
        <button
          type="button"
          className="font-medium underline"
          onClick={() => dispatch(jobActions.stepChosen(heap.step))}
        >
          {one ? first?.name : counted(ids.length, 'piece')} from {heap.from}
        </button>
        <span className="rule text-graphite">{size}</span>
        <span className="text-graphite">
          {heap.goesTo ? `goes into ${heap.goesTo}` : 'nobody takes it yet'}
        </span>
        {heap.clamps && <span className="text-graphite">{clampWords(heap.clamps)}</span>}
        {glue && how && !heap.goesTo && (
          <span className="flex items-center gap-1.5">
            <button type="button" className="action h-7!" onClick={() => edit(how)}>
              Lay in
            </button>
            {ids.length > 1 && (
              <label className="text-graphite flex items-center gap-1">
                one after every
                <input
                  className="field h-7! w-11"
                  inputMode="numeric"
                  value={every}
                  placeholder="–"
                  onChange={({ target }) =>
                    setEvery(target.value.replace(/\D/g, '').slice(0, 2).replace(/^0+/, ''))
                  }
                />
              </label>
            )}
          </span>
        )}
      </div>
    </div>
  );
}
