import {
  exactText,
  lengthParts,
  lengthUnit,
  typedParts,
  type Display,
  type Length,
  type NumberParts,
} from '../../core/units';

/** A number set in type: whole, and the fraction as a real one; `svg` inside a drawing's text. */
export function Parts({ parts, svg = false }: { parts: NumberParts; svg?: boolean }) {
  const Fraction = svg ? 'tspan' : 'span';
  return (
    <>
      {parts.negative && '−'}
      {parts.whole}
      {parts.bottom && (
        <Fraction className="frac">{`${parts.whole ? ' ' : ''}${parts.top}/${parts.bottom}`}</Fraction>
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
      {unit && (
        <span className="text-graphite text-[0.8em] font-medium">{`\u00a0${lengthUnit(display)}`}</span>
      )}
    </span>
  );
}
