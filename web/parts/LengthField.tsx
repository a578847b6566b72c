import { useEffect, useId, useRef, useState } from 'react';
import {
  ABSURD_MM,
  exactText,
  inputText,
  lengthUnit,
  parseLength,
  roundUpToStep,
  type Display,
  type Length,
  type LengthRule,
} from '../../core/units';

import { useReported } from './reported';

interface Props {
  label: string;
  value: Length;
  display: Display;
  rule?: LengthRule;
  /** Step of the arrow keys, mm. */
  stepMm?: number;
  onChange: (length: Length) => void;
  /** Called when the maker leaves the field: what follows is another edit. */
  onSettled?: () => void;
  className?: string;
  hideLabel?: boolean;
  /** Zero stands for none: the field is empty then, and emptying it says so. */
  unset?: boolean;
}

/** Sizes nearer than this are shown alike and are alike, mm. */
const SAME_MM = 1e-4;

/** Pixels of dragging on the unit that make one step. */
const SCRUB_PX = 6;

/** How long typing rests before what stands there counts, ms. */
const REST_MS = 400;

/**
 * A length as a woodworker writes it. What can be read counts at once, also in the middle of typing; what cannot be
 * read is answered under the field and the last good value stays. Arrow keys, and dragging on the unit, move by the shop's step.
 */
export function LengthField({
  label,
  value,
  display,
  rule,
  stepMm = 0,
  onChange,
  onSettled,
  className = '',
  hideLabel = false,
  unset = false,
}: Props) {
  const none = unset && value.mm === 0;
  const shown = none ? '' : inputText(value, display);
  const [text, setText] = useState(shown);
  const [touched, setTouched] = useState(false);
  const [reason, setReason] = useState<string>();
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);
  const scrub = useRef<{ x: number; mm: number }>(undefined);
  const id = useId();
  // A value typed in the other system, or computed, may be a hair off what is shown: typed as shown, it becomes that.
  const read = parseLength(shown, display.system, { minMm: 0 });
  const isAsShown = none || value.mm < 0 || !read.ok || Math.abs(read.length.mm - value.mm) < SAME_MM;
  useReported(id, reason && `${label}: ${reason}`);
  useEffect(() => {
    if (!touched) {
      setText(shown);
      setReason(undefined);
    }
  }, [shown, touched]);

  const take = (typed: string, final: boolean) => {
    clearTimeout(rest.current);
    if (unset && typed.trim() === '') {
      setReason(undefined);
      if (!none) onChange({ mm: 0 });
      return;
    }
    // What stands there is only the way this value is shown: nothing was typed.
    if (typed.trim() === shown && (!touched || isAsShown)) {
      setReason(undefined);
      return;
    }
    const parsed = parseLength(typed, display.system, rule);
    if (!parsed.ok) {
      if (final) setReason(parsed.reason);
      return;
    }
    setReason(undefined);
    onChange(parsed.length);
  };
  const step = stepMm || (display.system === 'mm' ? 0.5 : 25.4 / 32);
  const clamp = (mm: number) => Math.min(rule?.maxMm ?? ABSURD_MM, Math.max(rule?.minMm ?? step, mm));
  const readable = (typed: string) =>
    (unset && typed.trim() === '') || parseLength(typed, display.system, rule).ok;
  const scrubbed = () => {
    scrub.current = undefined;
    onSettled?.();
  };
  const nudge = (direction: number) => {
    // From nothing there is no next.
    if (none) return;
    setTouched(false);
    onChange({ mm: clamp(roundUpToStep(value.mm + direction * step - step / 2, step)) });
  };
  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </label>
      <span className="relative block">
        <input
          id={id}
          className="field w-full pr-8"
          value={text}
          inputMode="text"
          autoComplete="off"
          spellCheck={false}
          title={exactText(value.mm)}
          aria-invalid={reason !== undefined}
          aria-describedby={reason ? `${id}-why` : undefined}
          data-dirty={touched && text !== shown ? '' : undefined}
          onChange={(event) => {
            setTouched(true);
            setText(event.target.value);
            setReason(undefined);
            clearTimeout(rest.current);
            const typed = event.target.value;
            rest.current = setTimeout(() => take(typed, true), REST_MS);
          }}
          onBlur={() => {
            if (touched) take(text, true);
            if (readable(text)) setTouched(false);
            onSettled?.();
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              // In a form, Enter settles the length; it does not send the form.
              event.preventDefault();
              take(text, true);
              if (readable(text)) setTouched(false);
              onSettled?.();
            } else if (event.key === 'Escape') {
              clearTimeout(rest.current);
              setTouched(false);
              setText(shown);
              setReason(undefined);
            } else if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && !event.altKey) {
              event.preventDefault();
              nudge(event.key === 'ArrowUp' ? 1 : -1);
            }
          }}
        />
        <span
          aria-hidden
          title="Drag to change"
          className="text-graphite absolute inset-y-0 right-0 flex cursor-ew-resize touch-none items-center px-2 text-[12px] select-none"
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            scrub.current = { x: event.clientX, mm: value.mm };
          }}
          onPointerMove={(event) => {
            if (!scrub.current || none) return;
            const steps = Math.round((event.clientX - scrub.current.x) / SCRUB_PX);
            const mm = clamp(roundUpToStep(scrub.current.mm, step) + steps * step);
            if (steps !== 0 && Math.abs(mm - value.mm) > 1e-9) onChange({ mm });
          }}
          onPointerUp={scrubbed}
          onPointerCancel={scrubbed}
        >
          {!isAsShown && !touched && <span className="pr-0.5">≈</span>}
          {lengthUnit(display)}
        </span>
      </span>
      {reason && (
        <span id={`${id}-why`} role="alert" className="text-red block pt-0.5 text-[12.5px]">
          {reason}
        </span>
      )}
    </div>
  );
}
