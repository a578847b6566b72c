import type { BuildDocument } from '../../../core/build';
import { boardFeetOf, copiesOf, moneyText, totalsOf, type BoardLayout, type Plan } from '../../../core/stock';
import { volumeText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Measure } from '../../parts/Measure';
import { Row } from '../job/Card';
import type { Advice } from './use-breakdown';

/** What the plan uses, wastes and costs, for one piece and for all. */
export function Results({
  build,
  plan,
  layouts,
  advice,
}: {
  build: BuildDocument;
  plan: Plan;
  layouts: readonly BoardLayout[];
  advice: Advice;
}) {
  const display = useDisplay();
  const totals = totalsOf(layouts);
  const copies = Math.max(1, ...build.assemblies.map((assembly) => copiesOf(build, assembly)));
  const placed = plan.answer.places.length;
  const wood = (mm3: number) =>
    display.system === 'mm' ? volumeText(mm3, display) : `${boardFeetOf(mm3).toFixed(2)} bd ft`;
  const money = (share: number) =>
    Object.entries(totals.cost)
      .map(([currency, minor]) => moneyText(minor / share, currency))
      .join(' + ');
  return (
    <section aria-label="What it takes">
      <h2 className="text-[18px] leading-tight font-semibold">
        {placed} of {plan.problem.strips.length} strips from {totals.boards}{' '}
        {totals.boards === 1 ? 'board' : 'boards'}
      </h2>
      <p className="text-graphite pb-1 text-[13.5px]">
        {plan.answer.proven
          ? 'Proven: nothing better exists for this goal.'
          : 'The numbers count wood of these boards only.'}
      </p>
      <dl>
        <Row name="Yield">
          <span className="rule">{(totals.yield * 100).toFixed(1)} %</span>
        </Row>
        <Row name="Wood of the boards">
          <span className="rule">{wood(totals.used)}</span>
        </Row>
        <Row name="Offcuts worth keeping">
          <span className="rule">{wood(totals.reusable)}</span>
        </Row>
        <Row name="Kerf, ends, edges and planing">
          <span className="rule">{wood(totals.waste)}</span>
        </Row>
        {Object.keys(totals.cost).length > 0 && (
          <Row name={copies > 1 ? `Wood costs, all ${copies}` : 'Wood costs, waste counted'}>
            <span className="rule">{money(1)}</span>
          </Row>
        )}
        {copies > 1 && Object.keys(totals.cost).length > 0 && (
          <Row name="for each piece">
            <span className="rule">{money(copies)}</span>
          </Row>
        )}
        {totals.unpriced > 0 && (
          <Row name="Boards without a price">
            <span className="rule">{totals.unpriced}</span>
          </Row>
        )}
        {placed > 0 &&
          advice.kerfs.length > 1 &&
          advice.kerfs.map(({ kerfMm, strips, totals: t }) => (
            <Row
              key={kerfMm}
              name={`With ${build.shop.saws
                .filter(({ kerf }) => kerf.mm === kerfMm)
                .map(({ name }) => name)
                .join(', ')}`}
            >
              <Measure value={kerfMm} display={display} unit />{' '}
              <span className="rule text-[13.5px]">
                {strips} strips, {(t.yield * 100).toFixed(1)} %
                {Object.entries(t.cost).map(([currency, minor]) => `, ${moneyText(minor, currency)}`)}
              </span>
            </Row>
          ))}
      </dl>
    </section>
  );
}
