import { useState } from 'react';
import type { BuildDocument } from '../../../../core/document';
import { roomOf, STEP_ROOMS } from '../../../../core/steps';
import { type Length, stripsInAll } from '../../../../core/units';
import { beginsWithStrips, lineEdit, usualLine } from '../../../../core/view';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { useAppDispatch } from '../../../app/store';
import { Choice } from '../../../parts/Choice';
import { Toggle } from '../../../parts/Toggle';
import { CountField } from '../../../parts/CountField';
import { LengthField } from '../../../parts/LengthField';
import { LengthsField } from '../../../parts/LengthsField';
import { useReports } from '../../../parts/reported';
import { Window } from '../../../parts/Window';
import { useEdit } from '../use-edit';
import { PatternLine } from './PatternLine';
import { WidthHelp } from './WidthHelp';
import { WOODS } from '../../../parts/woods';

const PATTERN = 'pattern';
const SOURCES = STEP_ROOMS.filter(({ flow }) => flow.source);
const GRAINS = [
  { value: 'length', label: 'Along the length' },
  { value: 'width', label: 'Across the width' },
  { value: 'thickness', label: 'Up: end grain above' },
];

/** Begins a line of its own: strips from boards, or a board, blank or slab that is there already. */
export function NewLine({ build }: { build: BuildDocument }) {
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const display = useDisplay();
  const [kind, setKind] = useState<string>(SOURCES[0].kind);
  const [line, setLine] = useState(() => usualLine(build));
  const { reasons, collect } = useReports();
  const change = (part: Partial<typeof line>) => setLine((before) => ({ ...before, ...part }));
  const strips = beginsWithStrips(kind);
  const close = () => dispatch(jobActions.addingAt(undefined));
  const size = (name: 'length' | 'width' | 'thickness', label: string) => (
    <LengthField
      label={label}
      value={line[name]}
      display={display}
      rule={{ minMm: 0.5, maxMm: name === 'length' ? 10_000 : 2000 }}
      onChange={(value: Length) => change({ [name]: value })}
    />
  );
  const begin = () => {
    edit(lineEdit(build, kind, line));
    close();
  };
  const pattern = kind === PATTERN;
  const kinds = (
    <Toggle
      label="It begins with"
      value={kind}
      onChange={setKind}
      options={[
        ...SOURCES.map((room) => ({
          value: room.kind,
          label: beginsWithStrips(room.kind) ? 'Strips from boards' : room.name,
        })),
        { value: PATTERN, label: 'A pattern' },
      ]}
    />
  );
  if (pattern)
    return (
      <Window title="A line of its own" open wide onClose={close}>
        <div className="flex flex-col gap-3">
          {kinds}
          <PatternLine build={build} onDone={close} />
        </div>
      </Window>
    );
  return (
    <Window title="A line of its own" open onClose={close}>
      <div className="flex flex-col gap-3">
        {kinds}
        <p className="text-graphite text-[13.5px]">{roomOf({ kind: kind as never }).says}</p>
        <label className="label block">
          Name
          <input
            className="field mt-0.5 w-full font-sans!"
            value={line.name}
            maxLength={80}
            onChange={(event) => change({ name: event.target.value })}
          />
        </label>
        <Choice
          label="Wood"
          value={line.species}
          options={WOODS}
          onChange={(species) => change({ species })}
        />
        {collect(
          <div className="grid grid-cols-2 gap-3">
            {strips ? (
              <div className="col-span-2">
                <LengthsField
                  label="Widths"
                  value={line.widths}
                  display={display}
                  rule={{ minMm: 0.5, maxMm: 2000 }}
                  says={(widths) => stripsInAll(widths, display)}
                  onChange={(widths) => change({ widths })}
                />
                <WidthHelp widths={line.widths} display={display} onUse={(widths) => change({ widths })} />
              </div>
            ) : (
              <CountField
                label="How many"
                value={line.count}
                least={1}
                most={500}
                onChange={(count) => change({ count })}
              />
            )}
            {size('length', 'Length')}
            {!strips && size('width', 'Width')}
            {size('thickness', 'Thickness')}
          </div>,
        )}
        {!strips && (
          <Choice
            label="Grain runs"
            value={line.grainAlong}
            options={GRAINS}
            onChange={(grainAlong) => change({ grainAlong: grainAlong as typeof line.grainAlong })}
          />
        )}
        {reasons.length > 0 && <p className="text-red text-[14px]">{reasons.join('. ')}.</p>}
        <button
          type="button"
          className="action action-main self-start"
          disabled={reasons.length > 0}
          onClick={begin}
        >
          Begin this line
        </button>
      </div>
    </Window>
  );
}
