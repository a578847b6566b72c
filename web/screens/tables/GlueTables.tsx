import type { ReactNode } from 'react';
import {
  ADHESIVE_CLASSES,
  ADHESIVE_CONDITIONS,
  ADHESIVE_SOURCE,
  CLAMP_KINDS,
  CLAMP_SOURCE,
  type Range,
} from '../../../core/kit';
import { forceText, minutesText, pressureText, temperatureText } from '../../../core/units';
import { elasticOf, ELASTIC_SOURCE } from '../../../core/wood/elastic';
import { SPECIES, speciesName } from '../../../core/wood/species';
import { useDisplay } from '../../app/display';
import { Sideways } from '../../parts/layout';

const span = ([a, b]: Range, text: (value: number) => string): string =>
  a === b ? text(a) : `${text(a)} to ${text(b)}`;
/** Italics mark what is unsure, as among the woods. */
const Sure = ({ is, children }: { is: string | undefined; children: ReactNode }) =>
  is === 'unsure' ? <i title={is}>{children}</i> : <span title={is}>{children}</span>;

function Table({ heads, children }: { heads: readonly string[]; children: ReactNode }) {
  return (
    <Sideways label={heads[0]} className="sheet p-3">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="label text-left align-bottom">
            {heads.map((head) => (
              <th key={head} className="pr-3 pb-1">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </Sideways>
  );
}
const row = 'border-line border-t border-dotted [&>td]:py-1 [&>td]:pr-3';

/** Classes of adhesives, kinds of clamps and elastic values: what a glue-up is planned with; woods by the search above. */
export function GlueTables({ search }: { search: string }) {
  const display = useDisplay();
  return (
    <>
      <h2 id="adhesives" className="pt-6 pb-1 text-[18px] font-semibold">
        Adhesives
      </h2>
      <p className="text-graphite pb-2 text-[14px]">
        By class, at {ADHESIVE_CONDITIONS}. {ADHESIVE_SOURCE}
      </p>
      <Table
        heads={[
          'Class',
          'Open',
          'To the last clamp',
          'In clamps',
          'Least',
          'Spread, g/m²',
          'Water',
          'Dries',
          'Food',
        ]}
      >
        {ADHESIVE_CLASSES.map((each) => (
          <tr key={each.id} className={row}>
            <td>
              <span className="font-medium">{each.name}</span>
              <span className="text-graphite block text-[13px]">{each.chemistry}</span>
            </td>
            <td className="rule">
              <Sure is={each.certainty.times}>{span(each.openMin, minutesText)}</Sure>
            </td>
            <td className="rule">
              <Sure is={each.certainty.times}>{span(each.closedMin, minutesText)}</Sure>
            </td>
            <td className="rule">
              <Sure is={each.certainty.times}>{span(each.clampMin, minutesText)}</Sure>
            </td>
            <td className="rule">{span(each.leastC, (c) => temperatureText(c, display))}</td>
            <td className="rule">
              <Sure is={each.certainty.spread}>{span(each.gPerM2, String)}</Sure>
            </td>
            <td className="max-w-64 text-[13px]">{each.waterWords}</td>
            <td>{each.colour}</td>
            <td>{each.food === 'no' ? 'no' : 'if its label says so'}</td>
          </tr>
        ))}
      </Table>
      <h2 id="clamps" className="pt-6 pb-1 text-[18px] font-semibold">
        Clamps
      </h2>
      <p className="text-graphite pb-2 text-[14px]">{CLAMP_SOURCE}</p>
      <Table heads={['Kind', 'As stated', 'By hand', 'Notes']}>
        {CLAMP_KINDS.map((kind) => (
          <tr key={kind.id} className={row}>
            <td className="font-medium">{kind.name}</td>
            <td className="rule">
              <Sure is={kind.certainty}>{span(kind.statedN, (n) => forceText(n, display))}</Sure>
            </td>
            <td className="rule">
              <Sure is={kind.certainty}>{span(kind.handN, (n) => forceText(n, display))}</Sure>
            </td>
            <td className="text-[13px]">{kind.note ?? ''}</td>
          </tr>
        ))}
      </Table>
      <h2 id="elastic" className="pt-6 pb-1 text-[18px] font-semibold">
        Elastic values
      </h2>
      <p className="text-graphite pb-2 text-[14px]">
        For pressure along glue lines and for dents. {ELASTIC_SOURCE}. A wood without a row of its own takes
        its nearest one.
      </p>
      <Table
        heads={[
          'Wood',
          'Row of',
          'Along the grain, GPa',
          'Tangential, radial, of it',
          'Shear LT, LR, of it',
          'Dents across the grain from',
        ]}
      >
        {SPECIES.filter(({ common }) => common.toLowerCase().includes(search)).map(({ id, common }) => {
          const { from, own, EL, ratios, compressionMPa, compressionFrom } = elasticOf(id);
          const three = (value: number) => value.toFixed(3);
          return (
            <tr key={id} className={row}>
              <td className="font-medium">{common}</td>
              <td>{own ? 'its own' : <i>{speciesName(from)}</i>}</td>
              <td className="rule">{(EL / 1000).toFixed(1)}</td>
              <td className="rule">
                {three(ratios.ET)}, {three(ratios.ER)}
              </td>
              <td className="rule">
                {three(ratios.GLT)}, {three(ratios.GLR)}
              </td>
              <td className="rule">
                <Sure is={compressionFrom === 'table' ? undefined : 'unsure'}>
                  {pressureText(compressionMPa, display)}
                </Sure>
              </td>
            </tr>
          );
        })}
      </Table>
    </>
  );
}
