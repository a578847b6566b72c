import { Check, TriangleAlert, X } from 'lucide-react';
import type { Fact, FactState } from '../../../core/steps';
import type { Display } from '../../../core/units';
import { Words } from '../../parts/Words';
import { Row } from './CardParts';

const STATES: Record<FactState, { icon: typeof Check; words: string; look: string }> = {
  met: { icon: Check, words: 'good', look: 'text-green' },
  close: { icon: TriangleAlert, words: 'mind it', look: 'text-graphite' },
  broken: { icon: X, words: 'not enough', look: 'text-red font-medium' },
};

/** What is known of a step, line by line; whether it will do by sign, word and colour. */
export function Facts({
  facts,
  display,
  title,
}: {
  facts: readonly Fact[];
  display: Display;
  title?: string;
}) {
  if (facts.length === 0) return null;
  return (
    <section aria-label={title ?? 'What it comes to'}>
      <dl>
        {facts.map(({ name, says, state }, i) => {
          const sign = state && STATES[state];
          const Icon = sign?.icon;
          return (
            <Row key={`${name}${i}`} name={name}>
              <span className={`text-[14px] ${sign?.look ?? ''}`}>
                {Icon && (
                  <>
                    <Icon size={14} aria-hidden className="mr-1 inline-block" />
                    <span className="sr-only">{sign?.words}: </span>
                  </>
                )}
                <Words phrase={says} display={display} />
              </span>
            </Row>
          );
        })}
      </dl>
    </section>
  );
}
