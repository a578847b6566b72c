import { dialled } from '../../../../core/units';
import type { PlacedClamp } from '../../../../core/document';
import { clampsOf } from '../../../../core/kit';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { Choice } from '../../../parts/Choice';
import { Toggle } from '../../../parts/Toggle';
import { LengthField } from '../../../parts/LengthField';
import { NumberField } from '../../../parts/NumberField';
import { useSettle } from '../use-edit';
import { placedClamps } from './GlueBench';
import { type GluePart, usePlanGlue } from './parts';

/** The clamp chosen on the bench: where it stands, on which side, how hard, and which of the rack it is. */
export function ChosenClamp({ build, step, planned }: GluePart) {
  const dispatch = useAppDispatch();
  const planGlue = usePlanGlue(step);
  const settle = useSettle();
  const display = useDisplay();
  const id = useAppSelector(({ job }) => job.clamp);
  const all = placedClamps(planned.clamps);
  const clamp = all.find((each) => each.id === id);
  const order = planned.clamps.clamps.find((each) => each.id === id)?.order;
  if (!clamp) return null;
  const set = (change: Partial<PlacedClamp>, mark?: string) =>
    planGlue(
      { clamps: all.map((each) => (each.id === id ? { ...each, ...change } : each)) },
      mark && `${id}.${mark}`,
    );
  const inch = display.system === 'inch';
  const force = dialled('force', display);
  const owned = clampsOf(build.shop);
  return (
    <section aria-label={`Clamp ${order}`} className="border-chalk flex flex-col gap-2 border-l-[3px] pl-3">
      <div className="flex items-center justify-between">
        <h3 className="text-chalk font-semibold">Clamp {order}</h3>
        <span className="flex gap-3 text-[13px]">
          <button
            type="button"
            className="text-chalk underline"
            onClick={() => {
              dispatch(jobActions.clampChosen(undefined));
              planGlue({ clamps: all.filter((each) => each.id !== id) });
            }}
          >
            Take it away
          </button>
          <button
            type="button"
            className="text-graphite underline"
            onClick={() => dispatch(jobActions.clampChosen(undefined))}
          >
            all clamps
          </button>
        </span>
      </div>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <LengthField
          label="From the end"
          value={clamp.at}
          display={display}
          rule={{ minMm: 0, maxMm: planned.glueUp.lengthMm }}
          onChange={(at) => set({ at }, 'at')}
          onSettled={settle}
        />
        <NumberField
          label={`Force, ${force.unit}`}
          value={force.shown(clamp.forceN)}
          least={0}
          most={inch ? 10_000 : 45_000}
          onChange={(value) => set({ forceN: force.stored(value) }, 'force')}
          onSettled={settle}
        />
      </div>
      <Toggle
        label="Its bar lies"
        value={clamp.side}
        options={[
          { value: 'above', label: 'Above' },
          { value: 'below', label: 'Below' },
        ]}
        onChange={(side) => set({ side })}
      />
      {owned.length > 0 && (
        <Choice
          label="From the rack"
          value={clamp.set ?? 'any'}
          options={[
            { value: 'any', label: 'any that is long enough' },
            ...owned.map((each) => ({ value: each.id, label: each.name })),
          ]}
          onChange={(next) => set({ set: next === 'any' ? undefined : next })}
        />
      )}
    </section>
  );
}
