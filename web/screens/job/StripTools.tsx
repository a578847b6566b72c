import { CircleHelp, FlipVertical2, type LucideIcon, Rows3, Shuffle } from 'lucide-react';
import { Toolbar } from 'radix-ui';
import { useState } from 'react';
import type { BuildDocument, Step } from '../../../core/document';
import { asGlueUp } from '../../../core/steps';
import { holdHint } from '../../../core/view';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { lazily } from '../../parts/lazily';
import { pieceActions } from './strip-actions';

const JointsWindow = lazily(() => import('./JointsWindow'), 'JointsWindow');
const ProposeWindow = lazily(() => import('./ProposeWindow'), 'ProposeWindow');

/** What can be done to the chosen strip or slice, with its keys. */
export function StripTools({ build, step }: { build: BuildDocument; step: Step }) {
  const dispatch = useAppDispatch();
  const glue = asGlueUp(step);
  const piece = useAppSelector(({ job }) => job.piece);
  const underside = useAppSelector(({ job }) => job.underside);
  const seams = useAppSelector(({ job }) => job.seams);
  const canRead = useAppSelector(({ job }) => (job.outlook?.seams?.length ?? 0) > 0) && glue !== undefined;
  const [open, setOpen] = useState<'order' | 'signs'>();
  const laid = useAppSelector(({ job }) => job.outlook?.steps.find(({ id }) => id === step.id)?.laid);
  const actions = piece
    ? pieceActions(
        build,
        step,
        piece,
        laid?.map((part) => part.piece),
      )
    : [];
  // What can be done to a chosen piece takes the room of the other tools' words.
  const chosen = actions.length > 2;
  return (
    // One stop of the Tab key: arrows go from tool to tool.
    <Toolbar.Root
      aria-label="Chosen piece"
      className="border-line flex h-12 items-center gap-2 overflow-x-auto border-t px-3"
    >
      {actions.map((action) => (
        <Toolbar.Button
          key={action.name}
          className="action shrink-0"
          onClick={() => dispatch(jobActions.edited({ edit: action.edit }))}
        >
          {action.name} <kbd className="key">{action.keyLabel}</kbd>
        </Toolbar.Button>
      ))}
      {actions.length === 0 && <span className="text-graphite text-[13px]">{holdHint(build, step)}</span>}
      <span className="ml-auto" />
      {canRead && (
        <>
          <Tool name="Propose an order" bare={chosen} icon={Shuffle} onPress={() => setOpen('order')} />
          <Tool
            name="Joints"
            bare={chosen}
            icon={Rows3}
            pressed={seams}
            onPress={() => dispatch(jobActions.seamsShown())}
          />
          {seams && (
            <Tool name="What the signs say" bare icon={CircleHelp} onPress={() => setOpen('signs')} />
          )}
        </>
      )}
      {open === 'order' && glue && (
        <ProposeWindow build={build} step={glue} onClose={() => setOpen(undefined)} />
      )}
      {open === 'signs' && <JointsWindow step={step.id} onClose={() => setOpen(undefined)} />}
      <Tool
        name={underside ? 'Show the face' : 'Show the underside'}
        bare={chosen}
        icon={FlipVertical2}
        pressed={underside}
        onPress={() => dispatch(jobActions.turnedOver())}
      />
    </Toolbar.Root>
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
    <Toolbar.Button
      className={`action shrink-0 ${bare ? 'px-2' : ''}`}
      aria-label={name}
      title={name}
      aria-pressed={pressed}
      onClick={onPress}
    >
      <Icon size={15} aria-hidden /> {!bare && name}
    </Toolbar.Button>
  );
}
