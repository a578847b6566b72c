import { ClipboardCheck } from 'lucide-react';
import { useRef, useState } from 'react';
import { type BenchStep, type CheckedLine, CHECKS, notOfCheck, type Verdict } from '../../../core/bench';
import { type CheckKind, MOST_CHECK_VALUES, phraseText } from '../../../core/document';
import type { Display } from '../../../core/units';
import { shopTime } from '../../app/clock';
import { useDisplay } from '../../app/display';
import { newId } from '../../app/ids';
import { readQuantity, unitOf } from '../../app/quantity';
import { Choice } from '../../parts/Choice';
import { useEdit } from '../job/use-edit';
import { FromGauge } from './FromGauge';
import { useWedge } from './use-wedge';

const SIGNS: Record<Verdict, readonly [sign: string, words: string, colour: string]> = {
  good: ['✓', 'Good', 'text-green'],
  mind: ['!', 'Mind it', 'text-ink'],
  bad: ['✕', 'Not good enough', 'text-red'],
};
const NONE = 'none';
/** What can be checked at a step beside its sizes: chosen, read in, and judged at once; what was checked stands below it. */
export function Checks({
  sheet,
  who,
  onAsking,
}: {
  sheet: BenchStep;
  who: string | undefined;
  /** Fields of a check wait from now on, or do no longer. */
  onAsking: (asking: boolean) => void;
}) {
  const display = useDisplay();
  const edit = useEdit();
  const [kind, choose] = useState<CheckKind>();
  const setKind = (next: CheckKind | undefined) => {
    choose(next);
    onAsking(next !== undefined);
  };
  const [picked, setPicked] = useState<string>();
  const many = sheet.pieces.length > 1;
  const piece = many ? (sheet.pieces.find(({ id }) => id === picked) ?? sheet.pieces[0]).id : undefined;
  return (
    <section aria-label="Check" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3 text-[18px]">
        <ClipboardCheck size={20} aria-hidden className="text-graphite" />
        <Choice
          label="Check something else"
          className="w-64"
          value={kind ?? NONE}
          options={[
            { value: NONE, label: 'nothing just now' },
            ...sheet.mayCheck.map((value) => ({ value, label: CHECKS[value].name })),
          ]}
          onChange={(value) => setKind(value === NONE ? undefined : (value as CheckKind))}
        />
        {kind && piece && (
          <Choice
            label="Which piece"
            className="w-36"
            value={piece}
            options={sheet.pieces.map(({ id }, i) => ({ value: id, label: `Piece ${i + 1}` }))}
            onChange={setPicked}
          />
        )}
      </div>
      {kind && (
        <Asking
          key={kind}
          kind={kind}
          display={display}
          onKeep={(values, gauge) => {
            edit({
              do: 'check',
              check: {
                id: newId(),
                step: sheet.step,
                kind,
                values,
                taken: shopTime(),
                ...(piece ? { piece } : {}),
                ...(who ? { who } : {}),
                ...(gauge ? { gauge } : {}),
              },
            });
            setKind(undefined);
          }}
        />
      )}
      {sheet.checked.length > 0 && (
        <ul aria-label="What was checked" className="flex flex-col gap-1 text-[17px]" aria-live="polite">
          {sheet.checked.map((check) => (
            <Checked
              key={check.id}
              check={check}
              display={display}
              onForget={() => edit({ do: 'forgetCheck', check: check.id })}
            />
          ))}
        </ul>
      )}
    </section>
  );
}

function Asking({
  kind,
  display,
  onKeep,
}: {
  kind: CheckKind;
  display: Display;
  onKeep: (values: number[], gauge?: string) => void;
}) {
  const { how, of, numbers, more } = CHECKS[kind];
  const [texts, setTexts] = useState<readonly string[]>(numbers.map(() => ''));
  const [gauge, setGauge] = useState<string>();
  const [reason, setReason] = useState<string>();
  const form = useRef<HTMLFormElement>(null);
  useWedge(
    () => [...(form.current?.querySelectorAll('input') ?? [])].find(({ value }) => value.trim() === ''),
    true,
  );
  const names = more ? texts.map((_, i) => (i === 0 ? numbers[0] : `${numbers[0]} ${i + 1}`)) : numbers;
  const put = (i: number, text: string) => {
    setTexts(texts.with(i, text));
    setReason(undefined);
  };
  const keep = () => {
    const filled = more ? texts.filter((text) => text.trim() !== '') : texts;
    const values = filled.map((text) => readQuantity(text, of, display));
    const wrong = values.findIndex((value) => typeof value === 'string');
    const why = wrong >= 0 ? `${names[wrong]}: ${values[wrong]}` : notOfCheck(kind, values as number[]);
    if (why) setReason(why);
    else onKeep(values as number[], gauge);
  };
  /** A reading of a gauge goes into the first field that is empty. */
  const take = (typed: string, from: string) => {
    const at = texts.findIndex((text) => text.trim() === '');
    setGauge(from);
    setReason(undefined);
    if (at >= 0) setTexts(texts.with(at, typed));
    else if (more && texts.length < MOST_CHECK_VALUES) setTexts([...texts, typed]);
  };
  return (
    <form
      ref={form}
      className="border-line flex flex-col gap-3 border-l-4 pl-4"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <p className="text-[18px]">{how}</p>
      <div className="flex flex-wrap items-end gap-3">
        {texts.map((text, i) => (
          <label key={i} className="flex flex-col text-[16px]">
            {names[i]}, {unitOf(of, display)}
            <input
              className="field rule h-14! w-36 text-center text-[26px]!"
              // Fractions of an inch need a stroke, which a keyboard of digits has not.
              inputMode={of === 'length' && display.system === 'inch' ? 'text' : 'decimal'}
              autoComplete="off"
              value={text}
              onChange={({ target }) => put(i, target.value)}
            />
          </label>
        ))}
        {more && texts.length < MOST_CHECK_VALUES && (
          <button type="button" className="action h-14! px-4" onClick={() => setTexts([...texts, ''])}>
            One more
          </button>
        )}
        <button type="submit" className="action action-main h-14! px-5 text-[18px]">
          Keep it
        </button>
      </div>
      {reason && (
        <p role="alert" className="text-red text-[18px]">
          {reason}
        </p>
      )}
      <FromGauge of={of} waits onTake={take} />
    </form>
  );
}

function Checked({
  check,
  display,
  onForget,
}: {
  check: CheckedLine;
  display: Display;
  onForget: () => void;
}) {
  const { kind, nth, result } = check;
  const [sign, words, colour] = result
    ? SIGNS[result.verdict]
    : ['', 'Not to be judged any more', 'text-graphite'];
  return (
    <li className="flex flex-wrap items-center gap-x-3">
      <span>
        <strong className={`font-semibold ${colour}`}>
          {sign} {words}.
        </strong>{' '}
        {CHECKS[kind].name}
        {nth !== undefined && `, piece ${nth}`}: {result ? phraseText(result.words, display) : ''}
      </span>
      <button
        type="button"
        className="action h-11!"
        aria-label={`Take back: ${CHECKS[kind].name}`}
        onClick={onForget}
      >
        Take back
      </button>
    </li>
  );
}
