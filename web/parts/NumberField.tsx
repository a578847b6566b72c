import { useEffect, useId, useState } from 'react';

/** A plain number with limits, such as an angle in degrees. What is none is answered under the field. */
export function NumberField({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}) {
  const id = useId();
  const [text, setText] = useState(String(value));
  const [reason, setReason] = useState<string>();
  useEffect(() => {
    setText(String(value));
    setReason(undefined);
  }, [value]);
  const take = (typed: string) => {
    setText(typed);
    const number = Number(typed.trim().replace(',', '.').replace(/°$/, ''));
    if (typed.trim() === '' || !Number.isFinite(number)) return setReason('type a number');
    if (number < least || number > most) return setReason(`from ${least} to ${most}`);
    setReason(undefined);
    if (number !== value) onChange(number);
  };
  return (
    <div>
      <label htmlFor={id} className="label block pb-0.5">
        {label}
      </label>
      <input
        id={id}
        className="field w-full"
        inputMode="decimal"
        value={text}
        aria-invalid={reason !== undefined}
        aria-describedby={reason ? `${id}-why` : undefined}
        data-dirty={reason ? '' : undefined}
        onChange={(event) => take(event.target.value)}
      />
      {reason && (
        <span id={`${id}-why`} role="alert" className="text-red block pt-0.5 text-[12.5px]">
          {reason}
        </span>
      )}
    </div>
  );
}
