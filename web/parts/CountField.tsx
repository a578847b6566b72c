import { useEffect, useId, useState } from 'react';

/** A whole number from `least` to `most`. What is not one is answered under the field; the last good value stays. */
export function CountField({
  label,
  value,
  least = 1,
  hideLabel = false,
  most,
  onChange,
  onSettled,
}: {
  label: string;
  value: number;
  least?: number;
  hideLabel?: boolean;
  most: number;
  onChange: (value: number) => void;
  onSettled?: () => void;
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
    const count = Number(typed.trim());
    if (typed.trim() === '' || !Number.isInteger(count)) return setReason('type a whole number');
    if (count < least) return setReason(`the least is ${least}`);
    if (count > most) return setReason(`the most is ${most}`);
    setReason(undefined);
    if (count !== value) onChange(count);
  };
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </label>
      <input
        id={id}
        className="field w-full"
        inputMode="numeric"
        value={text}
        aria-invalid={reason !== undefined}
        aria-describedby={reason ? `${id}-why` : undefined}
        data-dirty={reason ? '' : undefined}
        onChange={(event) => take(event.target.value)}
        onBlur={onSettled}
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
