import { useState } from 'react';
import { DIMENSIONS, type DimensionName } from '../../../core/document';
import type { OwnRule } from '../../../core/kit';
import { STEP_ROOMS } from '../../../core/steps';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Toggle } from '../../parts/Toggle';

const STEPS = STEP_ROOMS.filter(({ run }) => run !== undefined)
  .map(({ kind, name }) => ({ value: kind as string, label: name }))
  .toSorted((a, b) => a.label.localeCompare(b.label));
const SIDES = [
  { value: 'below', label: 'below' },
  { value: 'above', label: 'above' },
] as const;

/** A rule of the shop's own: after which step, which size, below or above what; and what is then said. */
export function RuleForm({
  words: first,
  onMade,
  onClose,
}: {
  words: string;
  onMade: (rule: Omit<OwnRule, 'id'>) => void;
  onClose: () => void;
}) {
  const display = useDisplay();
  const [words, setWords] = useState(first === '' ? '' : `${first} before, at this size.`);
  const [step, setStep] = useState('slice');
  const [dimension, setDimension] = useState<DimensionName>('thickness');
  const [side, setSide] = useState<OwnRule['side']>('below');
  const [size, setSize] = useState<Length>({ mm: 0 });
  const [said, setSaid] = useState<string>();
  return (
    <form
      className="border-line flex flex-col gap-3 border p-3"
      aria-label="A rule of this shop"
      onSubmit={(event) => {
        event.preventDefault();
        if (words.trim() === '') setSaid('Write what is to be said.');
        else if (!(size.mm > 0)) setSaid('Say a size that is more than nothing.');
        else onMade({ words: words.trim(), step, dimension, side, size });
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <Choice label="After the step" value={step} options={STEPS} onChange={setStep} className="w-52" />
        <Toggle
          label="What is looked at"
          value={dimension}
          options={DIMENSIONS.map((value) => ({ value, label: value }))}
          onChange={setDimension}
        />
        <Toggle label="It is broken where that is" value={side} options={SIDES} onChange={setSide} />
        <LengthField
          label="this size"
          value={size}
          display={display}
          unset
          onChange={setSize}
          className="w-32"
        />
      </div>
      <label className="flex flex-col gap-0.5">
        <span className="label">What is then said</span>
        <input
          className="field font-sans!"
          value={words}
          maxLength={200}
          onChange={({ target }) => setWords(target.value)}
        />
      </label>
      {said !== undefined && (
        <p role="alert" className="text-red text-[14px]">
          {said}
        </p>
      )}
      <div className="flex gap-2">
        <button type="submit" className="action action-main">
          Keep the rule
        </button>
        <button type="button" className="action" onClick={onClose}>
          Leave it
        </button>
      </div>
    </form>
  );
}
