import { type BuildDocument, copiesOf } from '../../../core/document';
import type { ShopSnapshot } from '../../../core/kit';
import { acclimatised, boardFeetOf, type BoardLayout, type Plan, totalsOf } from '../../../core/stock';
import { counted, moneyText, volumeText, woodText } from '../../../core/units';
import { useKitQuery } from '../../app/api';
import { today } from '../../app/day';
import { useDisplay } from '../../app/display';
import { Measure } from '../../parts/Measure';
import { Row } from '../job/CardParts';
import type { Advice } from './use-breakdown';
import { How } from '../../parts/How';

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
  const { data: kit } = useKitQuery();
  const totals = totalsOf(layouts.map(ownOf(plan)));
  // Pieces of several kinds have no price a piece in common.
  const copies =
    build.targets.length > 1
      ? 1
      : Math.max(1, ...build.assemblies.map((assembly) => copiesOf(build, assembly)));
  const asked = plan.problem.strips.filter(isAsked(plan)).length;
  const placed = asked - plan.answer.missing.length;
  const wood = (mm3: number) =>
    display.system === 'mm' ? volumeText(mm3, display) : woodText(boardFeetOf(mm3), display);
  const money = (share: number) =>
    Object.entries(totals.cost)
      .map(([currency, minor]) => moneyText(minor / share, currency))
      .join(' + ');
  return (
    <section aria-label="What it takes">
      <h2 className="text-[18px] leading-tight font-semibold">
        {placed} of {counted(asked, 'strip')} from {counted(totals.boards, 'board')}
      </h2>
      <p className="text-graphite pb-1 text-[13.5px]">
        {plan.answer.proven
          ? 'Proven: nothing better exists for this goal.'
          : 'The numbers count wood of these boards only.'}
      </p>
      <dl>
        <Row name="Yield">
          <span className="rule">{(totals.yield * 100).toFixed(1)} %</span>
          <How of={({ workedYield }) => [workedYield(totals)]} what="Yield" />
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
                {counted(strips, 'strip')}, {(t.yield * 100).toFixed(1)} %
                {Object.entries(t.cost).map(([currency, minor]) => `, ${moneyText(minor, currency)}`)}
              </span>
            </Row>
          ))}
      </dl>
      {kit && <Cautions plan={plan} layouts={layouts} shop={kit.shop} />}
    </section>
  );
}

/** Whether a strip is one of the jobs asked about: places that other jobs take are drawn, not counted. */
const isAsked = (plan: Plan) => (strip: { id: string }) => (plan.demand.of.get(strip.id)?.job ?? -1) >= 0;

/** A layout in which only strips of the jobs asked about count. */
const ownOf =
  (plan: Plan) =>
  (layout: BoardLayout): BoardLayout => ({
    ...layout,
    sections: layout.sections.map((section) => ({
      ...section,
      lanes: section.lanes.map((lane) => lane.filter(({ strip }) => isAsked(plan)(strip))),
    })),
  });

/** Boards of the plan that are not ready, and what rests on nobody having looked. */
function Cautions({
  plan,
  layouts,
  shop,
}: {
  plan: Plan;
  layouts: readonly BoardLayout[];
  shop: ShopSnapshot;
}) {
  const waiting = layouts.flatMap(({ board }) => {
    const { ready, daysLeft, abovePct } = acclimatised(board, shop, today());
    return ready ? [] : [{ board, daysLeft, abovePct }];
  });
  const unlooked = layouts
    .filter(
      ({ board, sections }) =>
        !board.grain && sections.some(({ lanes }) => lanes.flat().some(({ strip }) => strip.grain)),
    )
    .map(({ board }) => board.label);
  const colours = layouts.filter(({ board }) => !board.colour).map(({ board }) => board.label);
  return (
    <>
      {waiting.map(({ board, daysLeft, abovePct }) => (
        <p key={board.id} className="text-red pt-1 text-[13.5px]">
          Board {board.label} has not settled:{' '}
          {daysLeft
            ? `${daysLeft} more days in the shop`
            : `${abovePct?.toFixed(1)} % above the shop’s moisture`}
          .
        </p>
      ))}
      {unlooked.length > 0 && (
        <p className="text-graphite pt-1 text-[13.5px]">
          Nobody looked at the grain of board {unlooked.join(', ')}: strips that ask for one are taken on
          trust.
        </p>
      )}
      {plan.problem.goal === 'colour' && colours.length > 0 && (
        <p className="text-graphite pt-1 text-[13.5px]">
          Nobody looked at the colour of board {colours.join(', ')}: it is left out of the match.
        </p>
      )}
    </>
  );
}
