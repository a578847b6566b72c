import type { Feature, Row } from '../../../core/steps';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { Toggle } from '../../parts/Toggle';
import { useSettle } from './use-edit';

const NOTHING: Length = { mm: 0 };
/** What a place may be: also beside the piece, and past the mark it is measured from. */
export const PLACE = { minMm: -30_000, maxMm: 30_000 };

const ROW_WAYS = [
  { value: 'one', label: 'One' },
  { value: 'pitch', label: 'A row by pitch' },
  { value: 'count', label: 'So many in a row' },
] as const;

const MIRRORS = [
  { value: 'no', label: 'No' },
  { value: 'u', label: 'Along' },
  { value: 'v', label: 'Across' },
  { value: 'both', label: 'Both' },
] as const;

/** Several alike in a row, a second row, and what is mirrored. */
export function RowFields({
  feature,
  onChange,
}: {
  feature: Feature;
  onChange: (next: Partial<Feature>, mark?: string) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const { row } = feature;
  const way = row ? (row.count === undefined ? 'pitch' : 'count') : 'one';
  const set = (next: Row | undefined, mark?: string) => onChange({ row: next }, mark);
  const begin = (to: (typeof ROW_WAYS)[number]['value']) => {
    const along = row?.along ?? 'u';
    if (to === 'one') return set(undefined);
    set(
      to === 'pitch'
        ? { along, pitch: { mm: 100 }, keepOut: { mm: 50 } }
        : { along, count: 4, margin: { mm: 50 } },
    );
  };
  const length = (label: string, name: 'pitch' | 'keepOut' | 'margin', least = 0) =>
    row && (
      <LengthField
        label={label}
        value={row[name] ?? NOTHING}
        display={display}
        rule={{ minMm: least, maxMm: 30_000 }}
        onChange={(next) => set({ ...row, [name]: next }, name)}
        onSettled={settle}
      />
    );
  return (
    <fieldset className="col-span-full grid grid-cols-2 items-end gap-x-3 gap-y-2">
      <legend className="label pb-0.5">Several alike</legend>
      <Choice label="How many" value={way} options={[...ROW_WAYS]} onChange={(to) => begin(to as 'one')} />
      {row && (
        <Toggle
          label="The row runs"
          value={row.along}
          options={[
            { value: 'u', label: 'Along' },
            { value: 'v', label: 'Across' },
          ]}
          onChange={(along) => set({ ...row, along })}
        />
      )}
      {way === 'pitch' && length('Pitch', 'pitch', 0.5)}
      {way === 'pitch' && length('Kept clear at the far side', 'keepOut')}
      {way === 'count' && row && (
        <CountField
          label="Number"
          value={row.count ?? 1}
          most={200}
          onChange={(count) => set({ ...row, count }, 'count')}
        />
      )}
      {way === 'count' && length('Margin at the far side', 'margin')}
      {row && (
        <label className="flex items-center gap-2 text-[14px] max-desk:min-h-11">
          <input
            type="checkbox"
            className="accent-chalk h-4 w-4"
            checked={row.second !== undefined}
            onChange={({ target }) => {
              const { second: _second, ...rest } = row;
              set(target.checked ? { ...rest, second: { off: { mm: 50 }, every: 1 } } : rest);
            }}
          />
          A second row between
        </label>
      )}
      {row?.second && (
        <>
          <LengthField
            label="Second row, so far off"
            value={row.second.off}
            display={display}
            rule={PLACE}
            onChange={(off) => row.second && set({ ...row, second: { ...row.second, off } }, 'off')}
            onSettled={settle}
          />
          <CountField
            label="At every so-many-th"
            value={row.second.every}
            most={100}
            onChange={(every) => row.second && set({ ...row, second: { ...row.second, every } }, 'every')}
          />
        </>
      )}
      <Choice
        label="Mirrored as well"
        value={feature.mirror ?? 'no'}
        options={[...MIRRORS]}
        onChange={(to) => onChange({ mirror: to === 'no' ? undefined : (to as Feature['mirror']) })}
      />
    </fieldset>
  );
}
