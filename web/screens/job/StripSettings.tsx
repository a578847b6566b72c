import type { BuildDocument, Slot, Step } from '../../../core/document';
import type { StepOutlook } from '../../../core/review';
import { assemblyOf } from '../../../core/steps';
import { boardsForStrip, stripFromBoard } from '../../../core/stock';
import { stripOrder } from '../../../core/view';
import { speciesName } from '../../../core/wood/common';
import { useBoardsQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import { Swatch } from '../../parts/Swatch';
import { StripWidths } from './StripWidths';
import { useEdit, useSettle } from './use-edit';
import { WOODS } from '../../parts/woods';

const SIZES = ['width', 'thickness', 'length'] as const;

interface Props {
  build: BuildDocument;
  step: Step;
  seen: StepOutlook | undefined;
}

/** The strips of a step's lay-up in the order of the step. */
function slotsOf({ build, step, seen }: Props): Slot[] {
  const assembly = assemblyOf(build, step.id);
  return stripOrder(build, step, seen?.laid)
    .map((id) => assembly?.slots.find((slot) => slot.id === id))
    .filter((slot): slot is Slot => slot !== undefined);
}

/** The strip in hand, its wood and section: the first thing on the card, a few tabs from the strip itself. */
export function ChosenStrip(props: Props) {
  const chosen = useAppSelector(({ job }) => job.piece);
  const slots = slotsOf(props);
  const slot = slots.find(({ id }) => id === chosen);
  return slot ? (
    <OneStrip build={props.build} step={props.step} slot={slot} nth={slots.indexOf(slot) + 1} />
  ) : null;
}

/** The lay-up as a list, while no strip of it is in hand. */
export function StripList(props: Props) {
  const chosen = useAppSelector(({ job }) => job.piece);
  const slots = slotsOf(props);
  return slots.length === 0 || slots.some(({ id }) => id === chosen) ? null : (
    <AllStrips step={props.step} slots={slots} />
  );
}

function OneStrip({ build, step, slot, nth }: { build: BuildDocument; step: Step; slot: Slot; nth: number }) {
  const display = useDisplay();
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const settle = useSettle();
  const { data: rack } = useBoardsQuery();
  const job = useAppSelector((state) => state.job.id) ?? '';
  const onRack = boardsForStrip(
    build,
    slot,
    (rack ?? []).filter(({ reserved }) => !reserved || reserved.job === job),
  );
  const board = slot.strip?.board && build.boards.find(({ id }) => id === slot.strip?.board);
  const change = (part: Partial<Omit<Slot, 'id'>>, mark?: string) =>
    edit({ do: 'setSlot', step: step.id, strip: slot.id, change: part }, mark && `${slot.id}.${mark}`);
  return (
    <section aria-label={`Strip ${nth}`} className="border-chalk flex flex-col gap-2.5 border-l-[3px] pl-3">
      <div className="flex items-center justify-between">
        <h3 className="text-chalk font-semibold">Strip {nth}</h3>
        <button
          type="button"
          className="text-graphite text-[13px] underline"
          onClick={() => dispatch(jobActions.pieceChosen(undefined))}
        >
          all strips
        </button>
      </div>
      <Choice
        label="Wood"
        value={slot.species}
        options={WOODS}
        onChange={(species) => change({ species, strip: slot.strip?.board ? {} : slot.strip })}
      />
      <div className="grid grid-cols-3 gap-2">
        {SIZES.map((name) => (
          <LengthField
            key={`${slot.id}${name}`}
            label={name === 'width' ? 'Ripped width' : name === 'thickness' ? 'Thickness' : 'Length'}
            value={slot[name]}
            display={display}
            stepMm={build.shop.settingStep.mm}
            onChange={(next) => change({ [name]: next }, name)}
            onSettled={settle}
          />
        ))}
      </div>
      {!board && (
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="Grain direction"
            value={slot.fibre ?? 'unknown'}
            options={[
              { value: 'unknown', label: 'not looked at' },
              { value: 'straight', label: 'straight' },
              { value: 'rising', label: 'rising, seen at the near edge' },
              { value: 'falling', label: 'falling, seen at the near edge' },
            ]}
            onChange={(fibre) =>
              change({ fibre: fibre === 'unknown' ? undefined : (fibre as Slot['fibre']) })
            }
          />
          <Choice
            label="Sapwood side"
            value={slot.sapEdge ?? 'unknown'}
            options={[
              { value: 'unknown', label: 'not looked at' },
              { value: 'none', label: 'none' },
              { value: 'near', label: 'near edge' },
              { value: 'far', label: 'far edge' },
              { value: 'both', label: 'both edges' },
            ]}
            onChange={(sap) => change({ sapEdge: sap === 'unknown' ? undefined : (sap as Slot['sapEdge']) })}
          />
        </div>
      )}
      {build.boards.length + onRack.length > 0 && (
        <Choice
          label="From board"
          value={slot.strip?.board ?? 'none'}
          onChange={(next) => {
            const other = onRack.find(({ id }) => id === next);
            if (other) return edit(stripFromBoard(build, slot, other));
            return change(
              next === 'none'
                ? { strip: {} }
                : {
                    strip: { board: next },
                    species: build.boards.find(({ id }) => id === next)?.species ?? slot.species,
                  },
            );
          }}
          options={[
            { value: 'none', label: 'not yet chosen' },
            ...build.boards.map((b) => ({
              value: b.id,
              label: `Board ${b.label}, ${speciesName(b.species)}`,
            })),
            ...onRack.map((b) => ({ value: b.id, label: `Rack ${b.label}, ${speciesName(b.species)}` })),
          ]}
        />
      )}
      {board && (
        <p className="text-graphite text-[13px]">
          Board {board.label} is <Measure value={board.length} display={display} /> ×{' '}
          <Measure value={board.width} display={display} /> ×{' '}
          <Measure value={board.thickness} display={display} unit />.
        </p>
      )}
    </section>
  );
}

function AllStrips({ step, slots }: { step: Step; slots: readonly Slot[] }) {
  const display = useDisplay();
  const dispatch = useAppDispatch();
  const edit = useEdit();
  return (
    <section aria-label="Strips">
      <div className="flex items-center justify-between pb-1">
        <h3 className="label">Strips, ripped width × thickness</h3>
        <button
          type="button"
          className="text-chalk text-[13px] font-medium underline"
          onClick={() => edit({ do: 'addStrip', step: step.id })}
        >
          Add a strip
        </button>
      </div>
      <ol className="flex flex-col">
        {slots.slice(0, 60).map((slot, i) => (
          <li key={slot.id}>
            <button
              type="button"
              className="hover:bg-chalk-wash flex w-full items-center gap-2 rounded px-1 py-[3px] text-left text-[14px]"
              onClick={() => dispatch(jobActions.pieceChosen(slot.id))}
            >
              <span className="rule text-graphite w-5 text-right text-[13px]">{i + 1}</span>
              <Swatch species={slot.species} />
              <span className="min-w-0 flex-1 truncate">{speciesName(slot.species)}</span>
              <span className="text-[14px]">
                <Measure value={slot.width} display={display} /> ×{' '}
                <Measure value={slot.thickness} display={display} />
              </span>
            </button>
          </li>
        ))}
      </ol>
      <StripWidths step={step} slots={slots} />
    </section>
  );
}
