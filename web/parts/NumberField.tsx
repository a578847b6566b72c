import { useEffect, useId, useState } from 'react';
import { useReported } from './reported';

export interface NumberFieldProps {
  label: string;
  value: number;
  least: number;
  most: number;
  whole?: boolean;
  hideLabel?: boolean;
  onChange: (value: number) => void;
  /** Called when the maker leaves the field: what follows is another edit. */
  onSettled?: () => void;
}

/** Why a text is no number for a field; undefined where it is one. */
function reasonAgainst(typed: string, number: number, { least, most, whole }: NumberFieldProps) {
  const empty = typed.trim() === '';
  if (whole) {
    if (empty || !Number.isInteger(number)) return 'type a whole number';
    if (number < least) return `the least is ${least}`;
    return number > most ? `the most is ${most}` : undefined;
  }
  if (empty || !Number.isFinite(number)) return 'type a number';
  return number < least || number > most ? `from ${least} to ${most}` : undefined;
}

const numberIn = (typed: string): number => Number(typed.trim().replace(',', '.').replace(/°$/, ''));

/**
 * A number with limits, such as a count or an angle in degrees; arrow keys move it by one. What is none is answered
 * under the field; the last good value stays.
 */
export function NumberField(props: NumberFieldProps) {
  const { label, value, least, most, hideLabel = false, onChange, onSettled } = props;
  const id = useId();
  const [text, setText] = useState(String(value));
  const [reason, setReason] = useState<string>();
  useReported(id, reason && `${label}: ${reason}`);
  useEffect(() => {
    // “1.” on the way from 1.25 to 1.5 means 1 already, and stays as it is typed until the field is left.
    setText((now) => (now.trim() !== '' && numberIn(now) === value ? now : String(value)));
    setReason(undefined);
  }, [value]);
  const take = (typed: string) => {
    setText(typed);
    const number = numberIn(typed);
    const against = reasonAgainst(typed, number, props);
    setReason(against);
    if (!against && number !== value) onChange(number);
  };
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </label>
      <input
        id={id}
        className="field w-full"
        inputMode={props.whole ? 'numeric' : 'decimal'}
        value={text}
        aria-invalid={reason !== undefined}
        aria-describedby={reason ? `${id}-why` : undefined}
        data-dirty={reason ? '' : undefined}
        onChange={(event) => take(event.target.value)}
        onBlur={() => {
          if (!reason) setText(String(value));
          onSettled?.();
        }}
        onKeyDown={(event) => {
          const move = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
          if (!move) return;
          event.preventDefault();
          take(String(Math.min(most, Math.max(least, value + move))));
        }}
      />
      {reason && (
        <span id={`${id}-why`} role="alert" className="text-red block pt-0.5 text-[12.5px]">
          {reason}
        </span>
      )}
    </div>
  );
}
