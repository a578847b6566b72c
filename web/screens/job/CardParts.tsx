import { phraseText, type Step } from '../../../core/document';
import type { StepOutlook } from '../../../core/review';
import { asFlattening, HOLDS } from '../../../core/steps';
import { type Display, offText } from '../../../core/units';

/** A name and what it comes to, on one line. */
export function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="border-line flex items-baseline justify-between gap-3 border-b border-dotted py-1">
      <dt className="text-[14px]">{name}</dt>
      <dd className="text-right">{children}</dd>
    </div>
  );
}

/** How a piece is held and wedged while it is flattened, in words; nothing where nobody said. */
export function HeldSo({ step, display }: { step: Step; display: Display }) {
  const flat = asFlattening(step);
  const hold = HOLDS.find(({ value }) => value === flat?.hold)?.says;
  const wind = flat?.wedges ? (flat.wind?.mm ?? 0) : 0;
  if (!hold && wind === 0) return null;
  return (
    <p className="text-[14px]">
      {hold}
      {wind > 0 && ` Wedges of ${offText(wind / 2, display)} under the two corners that stand off.`}
    </p>
  );
}

/** Less than this is nothing to a rule, mm. */
const SAME_MM = 0.005;

/** What each face must lose against what is taken off it. */
export function Reserves({
  reserves,
  display,
}: {
  reserves: NonNullable<StepOutlook['reserves']>;
  display: Display;
}) {
  return (
    <section aria-label="What the faces must lose" className="pt-3">
      <h3 className="label pb-1">
        What the faces must lose, {reserves[0].known === 'measured' ? 'as measured' : 'as expected'}
      </h3>
      <dl>
        {reserves.map(({ face, offMm, needMm }) => {
          const over = offMm - needMm;
          const words =
            needMm < SAME_MM
              ? 'nothing to lose'
              : Math.abs(over) < SAME_MM
                ? 'just enough'
                : over < 0
                  ? `short by ${offText(-over, display)}`
                  : `${offText(over, display)} to spare`;
          return (
            <Row
              key={face}
              name={`${face === 'upper' ? 'Upper' : 'Lower'} face${needMm < SAME_MM ? '' : `, ${offText(needMm, display)}`}`}
            >
              <span className={`rule ${over < -SAME_MM ? 'text-red font-medium' : ''}`}>{words}</span>
            </Row>
          );
        })}
      </dl>
    </section>
  );
}

/** The cuts that square the pieces, in their order. */
export function CutList({ cuts, display }: { cuts: NonNullable<StepOutlook['cuts']>; display: Display }) {
  return (
    <section aria-label="Cuts in their order" className="pt-3">
      <h3 className="label pb-1">Cuts in their order</h3>
      <ol className="list-decimal pl-5 text-[14px]">
        {cuts.map((words, i) => (
          <li key={i} className="py-0.5">
            {phraseText(words, display)}
          </li>
        ))}
      </ol>
    </section>
  );
}
