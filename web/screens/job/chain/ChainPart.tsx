import { ArrowLeft, ArrowRight, Copy, EyeOff, Plus, Trash2, X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { type BuildDocument, type Edit, phraseText, type Step } from '../../../../core/document';
import { readingsOn } from '../../../../core/edit';
import { type ChainAct, chainActs, movesOf } from '../../../../core/view';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { useAppDispatch } from '../../../app/store';
import { Choice } from '../../../parts/Choice';
import { useEdit, useSettle } from '../use-edit';

/** The step in its chain: what it is called, where it stands, and what a hand can do to it there. */
export function ChainPart(props: { build: BuildDocument; step: Step }) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="border-line border-t pt-2"
      data-testid="chain"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer text-[14px] font-medium">This step in the chain</summary>
      {open && <Inside {...props} />}
    </details>
  );
}

/** All that is asked and offered of it. Where it can go is worked out only while this is open. */
function Inside({ build, step }: { build: BuildDocument; step: Step }) {
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const settle = useSettle();
  const set = (change: Record<string, unknown>, mark?: string) =>
    edit({ do: 'setStep', step: step.id, change }, mark && `${step.id}.${mark}`);
  const display = useDisplay();
  const { earlier, later, duplicate, remove, inputs } = chainActs(build, step);
  const why = [earlier, duplicate, remove].flatMap((act) =>
    'why' in act ? [phraseText(act.why, display)] : [],
  );
  const moves = movesOf(build, step.id);
  const readings = readingsOn(build, step.id);
  return (
    <div className="flex flex-col gap-2.5 pt-2">
      <div className="flex flex-wrap gap-1.5">
        <Act icon={<Plus size={15} />} onPress={() => dispatch(jobActions.addingAt({ after: step.id }))}>
          Add after it
        </Act>
        <Act icon={<ArrowLeft size={15} />} act={earlier} run={edit}>
          Earlier
        </Act>
        <Act icon={<ArrowRight size={15} />} act={later} run={edit}>
          Later
        </Act>
        <Act icon={<Copy size={15} />} act={duplicate} run={edit}>
          Duplicate
        </Act>
        <Act icon={<EyeOff size={15} />} onPress={() => set({ off: step.off ? undefined : true })}>
          {step.off ? 'Put back in' : 'Leave out'}
        </Act>
        <Act icon={<Trash2 size={15} />} act={remove} run={edit}>
          Take out
        </Act>
      </div>
      {[...new Set(why)].map((words) => (
        <p key={words} className="text-graphite text-[13px]">
          {words}
        </p>
      ))}
      {inputs.length > 0 && (
        <ul aria-label="Takes from" className="text-[14px]">
          {inputs.map(({ from, leave }) => (
            <li key={from} className="flex items-center justify-between gap-2 py-0.5">
              <span>takes from {from}</span>
              <Act icon={<X size={14} />} act={leave} run={edit}>
                Leave aside
              </Act>
            </li>
          ))}
        </ul>
      )}
      {readings > 0 && (
        <p className="text-graphite text-[13px]">
          {readings === 1 ? 'A reading hangs' : `${readings} readings hang`} on this step. Taken out, it keeps
          them aside; undo brings both back.
        </p>
      )}
      {moves.length > 0 && (
        <Choice
          label="Move it"
          value=""
          options={moves.map(({ words }, i) => ({ value: String(i), label: words }))}
          onChange={(i) => edit(moves[Number(i)].edit)}
        />
      )}
      <label className="label block">
        Name
        <input
          className="field mt-0.5 w-full font-sans!"
          value={step.name ?? ''}
          maxLength={80}
          onChange={({ target }) => set({ name: target.value || undefined }, 'name')}
          onBlur={settle}
        />
      </label>
      <label className="label block">
        Note
        <textarea
          className="field mt-0.5 h-16! w-full py-1 font-sans!"
          value={step.note ?? ''}
          maxLength={4000}
          onChange={({ target }) => set({ note: target.value || undefined }, 'note')}
          onBlur={settle}
        />
      </label>
      <label className="label block">
        Marks on the wood, parted by commas
        <MarksInput marks={step.marks} onChange={(marks) => set({ marks }, 'marks')} onSettled={settle} />
      </label>
    </div>
  );
}

/** Marks as they are typed; set elsewhere, by undo for one, they are written anew. */
function MarksInput({
  marks,
  onChange,
  onSettled,
}: {
  marks: readonly string[] | undefined;
  onChange: (marks: string[] | undefined) => void;
  onSettled: () => void;
}) {
  const own = marks?.join(', ') ?? '';
  const [text, setText] = useState(own);
  const [from, setFrom] = useState(own);
  if (from !== own) {
    setFrom(own);
    if ((marksIn(text)?.join(', ') ?? '') !== own) setText(own);
  }
  return (
    <input
      className="field mt-0.5 w-full font-sans!"
      value={text}
      maxLength={400}
      onChange={({ target }) => {
        setText(target.value);
        onChange(marksIn(target.value));
      }}
      onBlur={onSettled}
    />
  );
}

const marksIn = (text: string): string[] | undefined => {
  const marks = text
    .split(',')
    .map((mark) => mark.trim().slice(0, 80))
    .filter(Boolean)
    .slice(0, 50);
  return marks.length > 0 ? marks : undefined;
};

/** Something a hand can do to the step, or what opens elsewhere. Off where it cannot be done here, with the reason. */
function Act({
  icon,
  children,
  act,
  run,
  onPress,
}: {
  icon: ReactNode;
  children: ReactNode;
  act?: ChainAct;
  run?: (edit: Edit) => void;
  onPress?: () => void;
}) {
  const display = useDisplay();
  return (
    <button
      type="button"
      className="action"
      disabled={act && 'why' in act}
      title={act && 'why' in act ? phraseText(act.why, display) : undefined}
      onClick={() => (act && 'edit' in act ? run?.(act.edit) : onPress?.())}
    >
      <span aria-hidden>{icon}</span> {children}
    </button>
  );
}
