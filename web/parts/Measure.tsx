import {
  exactText,
  lengthParts,
  lengthUnit,
  typedParts,
  type Display,
  type Length,
  type NumberParts,
} from '../../core/units';

/** A number set in type: whole, and the fraction as a real one. */
export function Parts({ parts }: { parts: NumberParts }) {
  return (
    <>
      {parts.negative && '−'}
      {parts.whole}
      {parts.bottom && (
        <span className="frac">{`${parts.whole ? ' ' : ''}${parts.top}/${parts.bottom}`}</span>
      )}
    </>
  );
}

/** A length in the shop's system, its exact value on hover. Shown as typed where it was typed in that system. */
export function Measure({
  value,
  display,
  unit = false,
  className = '',
}: {
  value: Length | number;
  display: Display;
  unit?: boolean;
  className?: string;
}) {
  const mm = typeof value === 'number' ? value : value.mm;
  const parts = typeof value === 'number' ? lengthParts(value, display) : typedParts(value, display);
  return (
    <span className={`rule whitespace-nowrap ${className}`} title={exactText(mm)}>
      <Parts parts={parts} />
      {unit && <span className="text-graphite ml-1 text-[0.8em] font-medium">{lengthUnit(display)}</span>}
    </span>
  );
}
