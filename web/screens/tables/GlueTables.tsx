import type { ReactNode } from 'react';
import {
  ADHESIVE_CLASSES,
  ADHESIVE_CONDITIONS,
  ADHESIVE_SOURCE,
  CLAMP_KINDS,
  CLAMP_SOURCE,
  type Range,
} from '../../../core/kit';
import { dialled, forceText, minutesText, pressureText, temperatureText } from '../../../core/units';
import { elasticOf, ELASTIC_SOURCE } from '../../../core/wood/elastic';
import { speciesName } from '../../../core/wood/common';
import { SPECIES } from '../../../core/wood/species';
import { useDisplay } from '../../app/display';
import { DataTable } from '../../parts/DataTable';

const three = (value: number) => value.toFixed(3);
const span = ([a, b]: Range, text: (value: number) => string): string =>
  a === b ? text(a) : `${text(a)} to ${text(b)}`;
/** Italics mark what is unsure, as among the woods. */
const Sure = ({ is, children }: { is: string | undefined; children: ReactNode }) =>
  is === 'unsure' ? <i title={is}>{children}</i> : <span title={is}>{children}</span>;

/** Classes of adhesives, kinds of clamps and elastic values: what a glue-up is planned with; woods by the search above. */
export function GlueTables({ search }: { search: string }) {
  const display = useDisplay();
  const [spread, stiffness] = [dialled('spread', display), dialled('stiffness', display)];
  const woods = SPECIES.filter(({ common }) => common.toLowerCase().includes(search)).map((wood) => ({
    ...wood,
    ...elasticOf(wood.id),
  }));
  return (
    <>
      <h2 id="adhesives" className="pt-6 pb-1 text-[18px] font-semibold">
        Adhesives
      </h2>
      <p className="text-graphite pb-2 text-[14px]">
        By class, at {ADHESIVE_CONDITIONS}. {ADHESIVE_SOURCE}
      </p>
      <DataTable
        label="Adhesives"
        rows={ADHESIVE_CLASSES}
        keyOf={({ id }) => id}
        columns={[
          {
            head: 'Class',
            cell: (each) => (
              <>
                {each.name}
                <span className="text-graphite block text-[13px] font-normal">{each.chemistry}</span>
              </>
            ),
          },
          {
            head: 'Open',
            cell: (each) => <Sure is={each.certainty.times}>{span(each.openMin, minutesText)}</Sure>,
          },
          {
            head: 'To the last clamp',
            cell: (each) => <Sure is={each.certainty.times}>{span(each.closedMin, minutesText)}</Sure>,
          },
          {
            head: 'In clamps',
            cell: (each) => <Sure is={each.certainty.times}>{span(each.clampMin, minutesText)}</Sure>,
          },
          { head: 'Least', cell: (each) => span(each.leastC, (c) => temperatureText(c, display)) },
          {
            head: 'Spread',
            under: spread.unit,
            cell: (each) => (
              <Sure is={each.certainty.spread}>{span(each.gPerM2, (g) => String(spread.shown(g)))}</Sure>
            ),
          },
          { head: 'Water', words: true, cell: (each) => each.waterWords },
          { head: 'Dries', words: true, cell: (each) => each.colour },
          { head: 'Food', words: true, cell: (each) => (each.food === 'no' ? 'no' : 'if its label says so') },
        ]}
      />
      <h2 id="clamps" className="pt-6 pb-1 text-[18px] font-semibold">
        Clamps
      </h2>
      <p className="text-graphite pb-2 text-[14px]">{CLAMP_SOURCE}</p>
      <DataTable
        label="Clamps"
        rows={CLAMP_KINDS}
        keyOf={({ id }) => id}
        columns={[
          { head: 'Kind', cell: ({ name }) => name },
          {
            head: 'As stated',
            cell: (kind) => (
              <Sure is={kind.certainty}>{span(kind.statedN, (n) => forceText(n, display))}</Sure>
            ),
          },
          {
            head: 'By hand',
            cell: (kind) => <Sure is={kind.certainty}>{span(kind.handN, (n) => forceText(n, display))}</Sure>,
          },
          { head: 'Notes', words: true, cell: (kind) => kind.note ?? '' },
        ]}
      />
      <h2 id="elastic" className="pt-6 pb-1 text-[18px] font-semibold">
        Elastic values
      </h2>
      <p className="text-graphite pb-2 text-[14px]">
        For pressure along glue lines and for dents. {ELASTIC_SOURCE}. A wood without a row of its own takes
        its nearest one.
      </p>
      <DataTable
        label="Elastic values"
        rows={woods}
        keyOf={({ id }) => id}
        columns={[
          { head: 'Wood', cell: ({ common }) => common },
          { head: 'Along the grain', under: stiffness.unit, cell: ({ EL }) => stiffness.shown(EL / 1000) },
          {
            head: 'Row of',
            words: true,
            cell: ({ own, from }) => (own ? 'its own' : <i>{speciesName(from)}</i>),
          },
          {
            head: 'Tangential, radial, of it',
            cell: ({ ratios }) => `${three(ratios.ET)}, ${three(ratios.ER)}`,
          },
          { head: 'Shear LT, LR, of it', cell: ({ ratios }) => `${three(ratios.GLT)}, ${three(ratios.GLR)}` },
          {
            head: 'Dents across the grain from',
            cell: ({ compressionFrom, compressionMPa }) => (
              <Sure is={compressionFrom === 'table' ? undefined : 'unsure'}>
                {pressureText(compressionMPa, display)}
              </Sure>
            ),
          },
        ]}
      />
    </>
  );
}
