import { displayOf, partText, type Phrase } from '../../core/document';
import type { Display } from '../../core/units';
import { Measure } from './Measure';

/** A message whose numbers are set in the shop's units. */
export function Words({ phrase, display }: { phrase: readonly Phrase[]; display: Display }) {
  const shown = displayOf(phrase, display);
  return (
    <>
      {phrase.map((part, i) => {
        if (typeof part === 'string') return <span key={i}>{part}</span>;
        if ('mm' in part) return <Measure key={i} value={part} display={shown} unit />;
        return (
          <span key={i} className="rule">
            {partText(part, shown)}
          </span>
        );
      })}
    </>
  );
}
