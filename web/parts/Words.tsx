import type { Phrase } from '../../core/build';
import { areaText, volumeText, type Display } from '../../core/units';
import { Measure } from './Measure';

/** A message whose numbers are set in the shop's units. */
export function Words({ phrase, display }: { phrase: readonly Phrase[]; display: Display }) {
  return (
    <>
      {phrase.map((part, i) => {
        if (typeof part === 'string') return <span key={i}>{part}</span>;
        if ('mm' in part) return <Measure key={i} value={part.mm} display={display} unit />;
        const text =
          'mm2' in part
            ? areaText(part.mm2, display)
            : 'mm3' in part
              ? volumeText(part.mm3, display)
              : String(part.count);
        return (
          <span key={i} className="rule">
            {text}
          </span>
        );
      })}
    </>
  );
}
