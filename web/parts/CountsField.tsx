import { useEffect, useId, useState } from 'react';
import { useReported } from './reported';

/** Why a text is no list of whole numbers from `least` to `most`; the list where it is one. */
function read(text: string, least: number, most: number): number[] | string {
  const parts = text.split(/[\s,;]+/).filter(Boolean);
  const numbers = parts.map((part) => Number(part.replace(/^[pP]/, '')));
  const wrong = parts.find(
    (_, i) => !Number.isInteger(numbers[i]) || numbers[i] < least || numbers[i] > most,
  );
  return wrong === undefined ? numbers : `“${wrong}” is no whole number from ${least} to ${most}`;
}

/** Whole numbers in a row, with commas between them; what is none is answered under the field, and the last good ones stay. */
export function CountsField({
  label,
  values,
  least,
  most,
  many,
  hideLabel = false,
  onChange,
  onSettled,
}: {
  label: string;
  values: readonly number[];
  least: number;
  most: number;
  /** The most of them. */
  many: number;
  hideLabel?: boolean;
  onChange: (values: number[]) => void;
  onSettled?: () => void;
}) {
  const id = useId();
  const shown = values.join(', ');
  const [text, setText] = useState(shown);
  const [reason, setReason] = useState<string>();
  useReported(id, reason && `${label}: ${reason}`);
  useEffect(() => {
    setText(shown);
    setReason(undefined);
  }, [shown]);
  const take = () => {
    const list = read(text, least, most);
    const against =
      typeof list === 'string' ? list : list.length > many ? `at most ${many} of them` : undefined;
    setReason(against);
    if (!against && typeof list !== 'string' && list.join(', ') !== shown) onChange(list);
    else if (!against) setText(shown);
    onSettled?.();
  };
  return (
    <div className="col-span-2">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </label>
      <input
        id={id}
        className="field w-full"
        value={text}
        aria-invalid={reason !== undefined}
        aria-describedby={reason ? `${id}-why` : undefined}
        onChange={({ target }) => setText(target.value)}
        onBlur={take}
        onKeyDown={({ key }) => key === 'Enter' && take()}
      />
      {reason && (
        <p id={`${id}-why`} role="alert" className="text-red text-[13px]">
          {reason}
        </p>
      )}
    </div>
  );
}
