import { useId, useState } from 'react';
import {
  type Display,
  type Length,
  type LengthRule,
  lengthText,
  lengthsText,
  parseLengths,
} from '../../core/units';
import { useReported } from './reported';

/** Lengths in one line, as a maker writes them down: “1 1/2, 3 x 1 3/8, 2”. What cannot be read is answered under it. */
export function LengthsField({
  label,
  value,
  display,
  rule,
  onChange,
}: {
  label: string;
  value: readonly Length[];
  display: Display;
  rule?: LengthRule;
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
  const parsed = parseLengths(text, display, rule);
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
          const next = parseLengths(event.target.value, display, rule);
          if (!next.ok) return;
          setSaid(next.lengths);
          onChange(next.lengths);
        }}
      />
      <span id={id} className={`block pt-1 text-[13px] ${reason ? 'text-red' : 'text-graphite'}`}>
        {reason ??
          `${value.length} strips, ${lengthText(
            value.reduce((sum, { mm }) => sum + mm, 0),
            display,
          )} in all`}
      </span>
    </label>
  );
}
