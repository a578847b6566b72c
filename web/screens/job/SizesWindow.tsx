import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { type Aim, type BuildDocument, type DependentSize, MOST_SIZES } from '../../../core/document';
import type { JobOutlook } from '../../../core/view';
import { lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import { Window } from '../../parts/Window';
import { useEdit, useSettle } from './use-edit';

const MUST: readonly { value: Aim['aim']; label: string }[] = [
  { value: 'free', label: 'may be anything' },
  { value: 'fixed', label: 'must be' },
  { value: 'atLeast', label: 'must be at least' },
  { value: 'atMost', label: 'must be at most' },
];

/** Sizes that follow from those that come out: a leg under a top, a base, a gap to a wall. */
export function SizesWindow({
  build,
  outlook,
  onClose,
}: {
  build: BuildDocument;
  outlook: JobOutlook;
  onClose: () => void;
}) {
  const edit = useEdit();
  const display = useDisplay();
  const sizes = build.sizes ?? [];
  const set = (next: readonly DependentSize[], mark?: string) =>
    edit({ do: 'setSizes', sizes: next.length > 0 ? [...next] : undefined }, mark);
  const add = () => {
    let n = sizes.length + 1;
    while (sizes.some(({ id, name }) => id === `size-${n}` || name === `size ${n}`)) n += 1;
    set([...sizes, { id: `size-${n}`, name: `size ${n}`, formula: '' }]);
  };
  return (
    <Window title="Sizes that follow" open onClose={onClose} wide>
      <p className="text-graphite pb-3 text-[14px]">
        What hangs on this job: a leg, a base, a gap. Write it as a sum:{' '}
        <b>{display.system === 'inch' ? '29' : '740'} - thickness</b>, with + - * / and brackets, plain or
        with units. When the piece comes out otherwise, these change with it.{' '}
        {outlook.outputs.length === 0 ? (
          'Nothing comes out of this job yet.'
        ) : (
          <>
            Names you can use:{' '}
            {outlook.outputs.map(({ name, mm }, i) => (
              <span key={name}>
                {i > 0 && ', '}
                <b>{name}</b> ({lengthText(mm, display)})
              </span>
            ))}
            {sizes.length > 0 && ', and the names below'}.
          </>
        )}
      </p>
      <ul className="flex flex-col gap-3">
        {sizes.map((size, i) => (
          <OneSize
            key={size.id}
            size={size}
            outcome={outlook.sizes.find(({ id }) => id === size.id)}
            onChange={(change, mark) =>
              set(
                sizes.map((each) => (each.id === size.id ? { ...each, ...change } : each)),
                mark && `${size.id}.${mark}`,
              )
            }
            onRemove={() => set(sizes.filter((_, at) => at !== i))}
          />
        ))}
      </ul>
      <button type="button" className="action mt-3" disabled={sizes.length >= MOST_SIZES} onClick={add}>
        <Plus size={15} aria-hidden /> Another size
      </button>
    </Window>
  );
}

function OneSize({
  size,
  outcome,
  onChange,
  onRemove,
}: {
  size: DependentSize;
  outcome: JobOutlook['sizes'][number] | undefined;
  onChange: (change: Partial<DependentSize>, mark?: string) => void;
  onRemove: () => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  // An empty name is no name: it stands only while another is typed.
  const [name, setName] = useState<string>();
  const aim = size.wanted?.aim ?? 'free';
  return (
    <li className="border-line flex flex-col gap-2 border-b border-dotted pb-3" data-size={size.id}>
      <div className="grid grid-cols-[160px_1fr_auto] items-end gap-2 max-desk:grid-cols-[1fr_auto]">
        <label className="label block">
          Name
          <input
            className="field mt-0.5 w-full font-sans!"
            value={name ?? size.name}
            maxLength={40}
            onChange={({ target }) => {
              setName(target.value);
              if (target.value.trim()) onChange({ name: target.value.trim() }, 'name');
            }}
            onBlur={() => {
              setName(undefined);
              settle();
            }}
          />
        </label>
        <label className="label block max-desk:col-span-2 max-desk:row-start-2">
          Follows from
          <input
            className="field mt-0.5 w-full"
            value={size.formula}
            maxLength={200}
            autoCapitalize="off"
            autoComplete="off"
            spellCheck={false}
            aria-invalid={outcome?.error !== undefined && size.formula !== ''}
            aria-describedby={`${size.id}-out`}
            onChange={({ target }) => onChange({ formula: target.value }, 'formula')}
            onBlur={settle}
          />
        </label>
        <button type="button" className="action px-2" aria-label={`Remove ${size.name}`} onClick={onRemove}>
          <X size={15} />
        </button>
      </div>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <p id={`${size.id}-out`} role="status" className="text-[15px]">
          {outcome?.error ? (
            <span className={`text-[14px] ${size.formula === '' ? 'text-graphite' : 'text-red'}`}>
              {outcome.error}
            </span>
          ) : outcome?.mm === undefined ? (
            '…'
          ) : (
            <>
              {size.name} is{' '}
              <b>
                <Measure value={outcome.mm} display={display} unit />
              </b>
              {outcome.missesMm !== undefined && (
                <span className="text-red">
                  , {outcome.missesMm > 0 ? 'too long' : 'too short'} by{' '}
                  <Measure value={Math.abs(outcome.missesMm)} display={display} unit />
                </span>
              )}
            </>
          )}
        </p>
        <div className="flex flex-wrap items-end gap-2">
          <Choice
            label={`What ${size.name} must be`}
            hideLabel
            className="w-48"
            value={aim}
            options={[...MUST]}
            onChange={(next) =>
              onChange({
                wanted:
                  next === 'free'
                    ? undefined
                    : {
                        aim: next as Aim['aim'],
                        // What it comes to now, until another is typed.
                        value: size.wanted?.value ?? { mm: Math.max(1, outcome?.mm ?? 100) },
                      },
              })
            }
          />
          {size.wanted?.value && aim !== 'free' && (
            <LengthField
              label={`${size.name} must be`}
              hideLabel
              className="w-28"
              value={size.wanted.value}
              display={display}
              rule={{ minMm: 0, maxMm: 100_000 }}
              onChange={(value) => onChange({ wanted: { aim, value } }, 'wanted')}
              onSettled={settle}
            />
          )}
        </div>
      </div>
    </li>
  );
}
