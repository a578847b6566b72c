import { useState } from 'react';
import { CHECKS, ruleChecks } from '../../../core/bench';
import { CHECK_KINDS, DIMENSIONS } from '../../../core/document';
import { MOST_RULE_VALUE, type OwnRule } from '../../../core/kit';
import { STEP_ROOMS } from '../../../core/steps';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { readQuantity, unitOf } from '../../app/quantity';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Toggle } from '../../parts/Toggle';

const STEPS = STEP_ROOMS.filter(({ run }) => run !== undefined)
  .map(({ kind, name }) => ({ value: kind as string, label: name }))
  .toSorted((a, b) => a.label.localeCompare(b.label));
/** What a rule can look at after a kind of step: the three sizes, and every check of one number that can be made there. */
const lookedAt = (step: string) => {
  const room = STEP_ROOMS.find(({ kind }) => kind === step);
  return [
    ...DIMENSIONS.map((value) => ({ value: value as string, label: `its ${value}` })),
    ...(room ? ruleChecks(room) : []).map((value) => ({ value: value as string, label: CHECKS[value].name })),
  ];
};
const SIDES = [
  { value: 'below', label: 'below' },
  { value: 'above', label: 'above' },
] as const;

/** A rule of the shop's own: after which step, which size or check, below or above what; and what is then said. */
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
  const [words, setWords] = useState(first === '' ? '' : `${first}: it happened here before.`);
  const [step, setStep] = useState('slice');
  const [chosen, setOf] = useState<string>('thickness');
  const options = lookedAt(step);
  // What cannot be checked after another step is not kept without being seen.
  const of = options.some(({ value }) => value === chosen) ? chosen : 'thickness';
  const [side, setSide] = useState<OwnRule['side']>('below');
  const [size, setSize] = useState<Length>({ mm: 0 });
  const [number, setNumber] = useState('');
  const [said, setSaid] = useState<string>();
  const dimension = DIMENSIONS.find((each) => each === of);
  const check = CHECK_KINDS.find((each) => each === of);
  const keep = () => {
    const rule = { words: words.trim(), step, side };
    if (rule.words === '') return setSaid('Write what is to be said.');
    if (dimension)
      return size.mm > 0
        ? onMade({ ...rule, dimension, size })
        : setSaid('Say a size that is more than nothing.');
    if (!check) return;
    const value = readQuantity(number, CHECKS[check].of, display);
    if (typeof value === 'string') setSaid(`${CHECKS[check].name}: ${value}.`);
    else if (value > MOST_RULE_VALUE) setSaid('No rule needs so large a number.');
    else onMade({ ...rule, check, value });
  };
  return (
    <form
      className="border-line flex flex-col gap-3 border p-3"
      aria-label="A rule of this shop"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <Choice label="After the step" value={step} options={STEPS} onChange={setStep} className="w-52" />
        <Choice label="What is looked at" value={of} options={options} onChange={setOf} className="w-56" />
        <Toggle label="It is broken where that is" value={side} options={SIDES} onChange={setSide} />
        {check ? (
          <label className="flex w-32 flex-col gap-0.5">
            <span className="label">this number, {unitOf(CHECKS[check].of, display)}</span>
            <input
              className="field"
              inputMode={CHECKS[check].of === 'length' && display.system === 'inch' ? 'text' : 'decimal'}
              autoComplete="off"
              value={number}
              onChange={({ target }) => setNumber(target.value)}
            />
          </label>
        ) : (
          <LengthField
            label="this size"
            value={size}
            display={display}
            unset
            onChange={setSize}
            className="w-32"
          />
        )}
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
