import type { ReactNode } from 'react';
import type { Phrase } from '../../../../core/build';
import { useDisplay } from '../../../app/display';
import { Words } from '../../../parts/Words';

/** A name and what it comes to, on a dotted line. */
export function Fact({ name, title, children }: { name: ReactNode; title?: string; children: ReactNode }) {
  return (
    <div
      className="border-line flex items-baseline justify-between gap-3 border-b border-dotted py-1"
      title={title}
    >
      <dt className="text-[14px]">{name}</dt>
      <dd className="rule text-right text-[14.5px]">{children}</dd>
    </div>
  );
}

/** A message in the shop's units. */
export const Say = ({ phrase }: { phrase: readonly Phrase[] }) => (
  <Words phrase={phrase} display={useDisplay()} />
);

/** Two lines of reason under a choice. */
export const Why = ({ children }: { children: ReactNode }) => (
  <p className="text-graphite text-[13px] leading-snug first-letter:uppercase">{children}</p>
);
