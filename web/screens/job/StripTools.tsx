import { FlipVertical2, Rows3, Shuffle } from 'lucide-react';
import { useState } from 'react';
import type { BuildDocument, Step } from '../../../core/build';
import { assemblyOf } from '../../../core/build/graph';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { ProposeWindow } from './ProposeWindow';
import { pieceActions } from './strip-actions';

/** What can be done to the chosen strip or slice, with its keys. */
export function StripTools({ build, step }: { build: BuildDocument; step: Step }) {
  const dispatch = useAppDispatch();
  const piece = useAppSelector(({ job }) => job.piece);
  const underside = useAppSelector(({ job }) => job.underside);
  const seams = useAppSelector(({ job }) => job.seams);
  const canRead = useAppSelector(({ job }) => (job.outlook?.seams?.length ?? 0) > 0) && step.kind === 'glue';
  const [proposing, setProposing] = useState(false);
  const actions = piece ? pieceActions(build, step, piece) : [];
  return (
    <div
      role="toolbar"
      aria-label="Chosen piece"
      className="border-line flex h-12 items-center gap-2 overflow-x-auto border-t px-3"
    >
      {actions.map((action) => (
        <button
          key={action.name}
          type="button"
          className="action"
          onClick={() => dispatch(jobActions.edited({ edit: action.edit }))}
        >
          {action.name} <kbd className="key">{action.keyLabel}</kbd>
        </button>
      ))}
      {actions.length === 0 && <span className="text-graphite text-[13px]">{hint(build, step)}</span>}
      <span className="ml-auto" />
      {canRead && (
        <>
          <button type="button" className="action" onClick={() => setProposing(true)}>
            <Shuffle size={15} aria-hidden /> Propose an order
          </button>
          <button
            type="button"
            className="action"
            aria-pressed={seams}
            onClick={() => dispatch(jobActions.seamsShown())}
          >
            <Rows3 size={15} aria-hidden /> Joints
          </button>
        </>
      )}
      {proposing && step.kind === 'glue' && (
        <ProposeWindow build={build} step={step} onClose={() => setProposing(false)} />
      )}
      <button
        type="button"
        className="action"
        aria-pressed={underside}
        onClick={() => dispatch(jobActions.turnedOver())}
      >
        <FlipVertical2 size={15} aria-hidden /> {underside ? 'Show the face' : 'Show the underside'}
      </button>
    </div>
  );
}

function hint(build: BuildDocument, step: Step): string {
  if (step.kind === 'glue' && step.along === 'width' && assemblyOf(build, step.id))
    return 'Press a strip to choose it; drag it to another place.';
  if (step.kind === 'glue' && step.turns) return 'Press a slice to choose it and turn it.';
  if (step.kind === 'slice' || step.kind === 'oblique') return 'Press a slice to say that it was spoilt.';
  if (step.kind === 'rip' || step.kind === 'mill') return 'Press a strip to choose it.';
  return 'Face above, near edge below, right end beside it.';
}
