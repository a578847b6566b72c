import { Plus, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import {
  type Aim,
  type BuildDocument,
  DIMENSIONS,
  type Edit,
  isRefused,
  phraseText,
  type Target,
  timesMade,
} from '../../../core/document';
import { applyEdit } from '../../../core/edit';
import type { JobOutlook } from '../../../core/view';
import { stepTitle } from '../../../core/steps';
import { counted } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { Window } from '../../parts/Window';
import { AimFields } from '../brief/AimFields';
import { useEdit, useSettle } from './use-edit';

const WAYS = [
  { does: 'makeEach', label: 'Each with boards and readings of its own' },
  { does: 'fromOneLength', label: 'Cut from one long piece' },
] as const;
const TITLES = { length: 'Length', width: 'Width', thickness: 'Thickness' } as const;

/** All pieces this job is for: what each is called, how many, which step it comes out of, and what is asked of its sizes. */
export function TargetsWindow({
  build,
  outlook,
  onClose,
}: {
  build: BuildDocument;
  outlook: JobOutlook;
  onClose: () => void;
}) {
  const edit = useEdit();
  return (
    <Window title="What is wanted" open onClose={onClose} wide>
      <div className="flex flex-col gap-5">
        {build.targets.map((target, i) => (
          <OneTarget
            key={target.id}
            build={build}
            target={target}
            nth={i + 1}
            sizes={outlook.wanted.find((each) => each.target === target.id)?.comparison}
          />
        ))}
        <label className="flex flex-col gap-1 self-start">
          <span className="label">Promised for</span>
          <input
            type="date"
            className="field h-9 w-44"
            value={build.promised ?? ''}
            onChange={({ target: { value } }) => edit({ do: 'promise', day: value || undefined }, 'promise')}
          />
          <span className="text-graphite text-[14px]">
            Today and the calendar say whether it will be ready by then.
          </span>
        </label>
        <button
          type="button"
          className="action self-start"
          onClick={() => edit({ do: 'addTarget', purpose: `Piece ${build.targets.length + 1}` })}
        >
          <Plus size={15} aria-hidden /> Another piece
        </button>
      </div>
    </Window>
  );
}

/** How pieces alike are made: in sessions at the same settings, each by itself, or cut from one long one. Each is tried first. */
function Alike({ build, target, times }: { build: BuildDocument; target: Target; times: number }) {
  const display = useDisplay();
  const edit = useEdit();
  const ways = useMemo(
    () =>
      WAYS.map(({ does, ...way }) => {
        const own: Edit = { do: does, target: target.id };
        const made = applyEdit(build, own);
        return { ...way, edit: own, why: isRefused(made) ? made.refused : undefined };
      }),
    [build, target.id],
  );
  return (
    <div className="flex flex-col gap-1.5 text-[13.5px]">
      <p className="text-graphite">
        {counted(target.quantity, 'piece')}: ripped, milled and trimmed together at the same settings, its
        steps gone through {times} times, in as many sessions of clamps as the glue-up says. Or:
      </p>
      {ways.map(({ label, edit: own, why }) => (
        <span key={label} className="flex items-baseline gap-2">
          <button
            type="button"
            className="action h-7! shrink-0"
            disabled={why !== undefined}
            onClick={() => edit(own)}
          >
            {label}
          </button>
          {why && <span className="text-graphite">{phraseText(why, display)}</span>}
        </span>
      ))}
    </div>
  );
}

function OneTarget({
  build,
  target,
  nth,
  sizes,
}: {
  build: BuildDocument;
  target: Target;
  nth: number;
  sizes: JobOutlook['comparison'];
}) {
  const display = useDisplay();
  const edit = useEdit();
  const settle = useSettle();
  // Aims that wait for their size: nothing comes out yet, and none is guessed.
  const [asked, setAsked] = useState<Partial<Record<(typeof DIMENSIONS)[number], Aim>>>({});
  const set = (change: Partial<Omit<Target, 'id'>>, mark: string) =>
    edit({ do: 'setTarget', target: target.id, change }, `${target.id}.${mark}`);
  const setAim = (dimension: (typeof DIMENSIONS)[number], aim: Aim) => {
    // A size that is asked for must be one: what comes out now, until another is typed.
    const now = sizes?.find((row) => row.dimension === dimension)?.predictedMm;
    const value = aim.value ?? (now === undefined ? undefined : { mm: now });
    if (aim.aim !== 'free' && !value) return setAsked((before) => ({ ...before, [dimension]: aim }));
    setAsked((before) => ({ ...before, [dimension]: undefined }));
    edit({ do: 'setAim', target: target.id, dimension, aim: aim.aim === 'free' ? aim : { ...aim, value } });
  };
  const known = build.steps.some(({ output }) => output === target.output);
  const times = timesMade(build, target);
  return (
    <fieldset
      className="border-line flex flex-col gap-2.5 rounded border bg-white p-3"
      aria-label={`Piece ${nth}`}
    >
      <div className="flex items-end gap-3">
        <label className="label block flex-1">
          What it is
          <input
            className="field mt-0.5 w-full font-sans!"
            value={target.purpose}
            maxLength={200}
            onChange={(event) => set({ purpose: event.target.value }, 'purpose')}
            onBlur={settle}
          />
        </label>
        <div className="w-24">
          <CountField
            label="How many"
            value={target.quantity}
            least={1}
            most={1000}
            onChange={(quantity) => set({ quantity }, 'quantity')}
            onSettled={settle}
          />
        </div>
        <div className="w-32">
          <CountField
            label="Made at once"
            value={target.atOnce ?? build.brief?.quantity ?? 1}
            least={1}
            most={1000}
            onChange={(atOnce) => set({ atOnce }, 'atOnce')}
            onSettled={settle}
          />
        </div>
        {build.targets.length > 1 && (
          <button
            type="button"
            className="action px-2"
            aria-label={`Remove piece ${nth}`}
            onClick={() => edit({ do: 'removeTarget', target: target.id })}
          >
            <X size={15} />
          </button>
        )}
      </div>
      {times > 1 && <Alike build={build} target={target} times={times} />}
      <Choice
        label="Comes out of"
        value={known ? target.output : ''}
        options={build.steps.map((step) => ({ value: step.output, label: stepTitle(build, step) }))}
        onChange={(output) => set({ output }, 'output')}
      />
      <div className="grid grid-cols-3 gap-3">
        {DIMENSIONS.map((dimension) => (
          <AimFields
            key={dimension}
            title={TITLES[dimension]}
            aim={asked[dimension] ?? target[dimension]}
            display={display}
            onChange={(aim) => setAim(dimension, aim)}
          />
        ))}
      </div>
    </fieldset>
  );
}
