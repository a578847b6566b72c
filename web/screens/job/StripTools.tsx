import { FlipVertical2, Rows3, Shuffle, type LucideIcon } from 'lucide-react';
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
  // What can be done to a chosen piece takes the room of the other tools' words.
  const chosen = actions.length > 2;
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
          className="action shrink-0"
          onClick={() => dispatch(jobActions.edited({ edit: action.edit }))}
        >
          {action.name} <kbd className="key">{action.keyLabel}</kbd>
        </button>
      ))}
      {actions.length === 0 && <span className="text-graphite text-[13px]">{hint(build, step)}</span>}
      <span className="ml-auto" />
      {canRead && (
        <>
          <Tool name="Propose an order" bare={chosen} icon={Shuffle} onPress={() => setProposing(true)} />
          <Tool
            name="Joints"
            bare={chosen}
            icon={Rows3}
            pressed={seams}
            onPress={() => dispatch(jobActions.seamsShown())}
          />
        </>
      )}
      {proposing && step.kind === 'glue' && (
        <ProposeWindow build={build} step={step} onClose={() => setProposing(false)} />
      )}
      <Tool
        name={underside ? 'Show the face' : 'Show the underside'}
        bare={chosen}
        icon={FlipVertical2}
        pressed={underside}
        onPress={() => dispatch(jobActions.turnedOver())}
      />
    </div>
  );
}

/** A tool of the bench: a sign and its name, or the sign alone where room is short. */
function Tool({
  name,
  icon: Icon,
  bare,
  pressed,
  onPress,
}: {
  name: string;
  icon: LucideIcon;
  bare: boolean;
  pressed?: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className={`action shrink-0 ${bare ? 'px-2' : ''}`}
      aria-label={name}
      title={name}
      aria-pressed={pressed}
      onClick={onPress}
    >
      <Icon size={15} aria-hidden /> {!bare && name}
    </button>
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
