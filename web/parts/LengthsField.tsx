import { useId, useState } from 'react';
import { type Display, type Length, type LengthRule, lengthsText, parseLengths } from '../../core/units';
import { useReported } from './reported';

/** Lengths in one line, as a maker writes them down: “1 1/2, 3 x 1 3/8, 2”. What cannot be read is answered under it. */
export function LengthsField({
  label,
  value,
  display,
  rule,
  says,
  empty,
  onChange,
}: {
  label: string;
  value: readonly Length[];
  display: Display;
  rule?: LengthRule;
  /** What is said under it of lengths that can be read. */
  says: (lengths: readonly Length[]) => string;
  /** What nothing means, where nothing may be typed. */
  empty?: string;
  onChange: (lengths: Length[]) => void;
}) {
  const id = useId();
  const [text, setText] = useState(() => lengthsText(value, display));
  const [said, setSaid] = useState<readonly Length[]>(value);
  // Set from elsewhere, it is written anew; while typed in, it stays as it is typed.
  if (said !== value) {
    setSaid(value);
    setText(lengthsText(value, display));
  }
  const read = (typed: string) =>
    empty !== undefined && typed.trim() === ''
      ? { ok: true as const, lengths: [] }
      : parseLengths(typed, display, rule);
  const parsed = read(text);
  const reason = parsed.ok ? undefined : parsed.reason;
  useReported(label, reason && `${label}: ${reason}`);
  return (
    <label className="label block">
      {label}
      <input
        className="field mt-0.5 w-full"
        value={text}
        aria-invalid={reason !== undefined}
        aria-describedby={id}
        onChange={(event) => {
          setText(event.target.value);
          const next = read(event.target.value);
          if (!next.ok) return;
          setSaid(next.lengths);
          onChange(next.lengths);
        }}
      />
      <span id={id} className={`block pt-1 text-[13px] ${reason ? 'text-red' : 'text-graphite'}`}>
        {reason ?? (value.length > 0 ? says(value) : empty)}
      </span>
    </label>
  );
}
