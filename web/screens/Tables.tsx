import { useState } from 'react';
import {
  density,
  MATERIAL_KINDS,
  MATERIAL_SOURCE,
  SPECIES,
  speciesSources,
  type Species,
} from '../../core/wood';
import { useDisplay } from '../app/display';
import { Swatch } from '../parts/Swatch';
import { GlueTables } from './tables/GlueTables';
import { Bar, Screen, Sideways } from '../parts/layout';

const UNSURE = new Set(['unsure', 'derived']);

/** The woods Junta knows, with how well each value is known; adhesives, clamps and elastic values below. */
export function Tables() {
  const [search, setSearch] = useState('');
  const display = useDisplay();
  const wanted = search.trim().toLowerCase();
  const rows = SPECIES.filter(({ common, latin }) => `${common} ${latin}`.toLowerCase().includes(wanted));
  const inch = display.system === 'inch';
  const weight = (species: Species) =>
    inch ? `${(density(species, 12) * 0.062428).toFixed(0)}` : density(species, 12).toFixed(0);
  return (
    <Screen>
      <Bar className="pb-3">
        <h1 className="text-[20px] font-semibold">Woods</h1>
        <span className="text-graphite text-[14px]">
          All values recalled from memory from the handbooks below, not looked up. <i>Slanted</i>: unsure or
          derived.
        </span>
        <label className="label ml-auto flex items-center gap-2">
          Search{' '}
          <input
            type="search"
            className="field w-52 font-sans!"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </label>
      </Bar>
      <Sideways label="Woods" className="sheet p-3">
        <table className="w-full text-[14px]">
          <thead>
            <tr className="label text-left align-bottom">
              <th className="pr-3 pb-1" colSpan={2}>
                Wood
              </th>
              <th className="pr-3 text-right">
                Density at 12 %<br />
                {inch ? 'lb/ft³' : 'kg/m³'}
              </th>
              <th className="pr-3 text-right">
                Shrinkage, green to dry
                <br />
                radial, tangential %
              </th>
              <th className="pr-3 text-right">
                Change per 1 % moisture
                <br />
                radial, tangential; of sheets through, across, along
              </th>
              <th className="pr-3 text-right">
                Side hardness
                <br />
                {inch ? 'lbf' : 'kN'}
              </th>
              <th className="pr-3 text-right">
                Bending modulus
                <br />
                GPa
              </th>
              <th>Gluing</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((s) => {
              const Value = ({ of, children }: { of: string; children: React.ReactNode }) =>
                UNSURE.has(s.certainty[of] ?? '') ? (
                  <i title={s.certainty[of]}>{children}</i>
                ) : (
                  <span title={s.certainty[of]}>{children}</span>
                );
              return (
                <tr key={s.id} className="border-line border-t border-dotted">
                  <td className="py-1 pr-2">
                    <Swatch species={s.id} size={18} />
                  </td>
                  <td className="pr-3">
                    <span className="font-medium">{s.common}</span>{' '}
                    <span className="text-graphite text-[13px] italic">
                      {s.latin || (s.material && MATERIAL_KINDS[s.material].says)}
                    </span>
                  </td>
                  <td className="rule pr-3 text-right">
                    <Value of="specificGravity12">{weight(s)}</Value>
                  </td>
                  <td className="rule pr-3 text-right">
                    <Value of="shrinkageRadialPct">{s.shrinkageRadialPct ?? '–'}</Value>,{' '}
                    <Value of="shrinkageTangentialPct">{s.shrinkageTangentialPct ?? '–'}</Value>
                  </td>
                  <td className="rule pr-3 text-right">
                    <Value of="coefficientRadial">{s.coefficientRadial?.toFixed(5)}</Value>,{' '}
                    <Value of="coefficientTangential">{s.coefficientTangential?.toFixed(5)}</Value>
                    {s.coefficientAlong !== undefined && (
                      <>
                        , <Value of="coefficientAlong">{s.coefficientAlong.toFixed(5)}</Value>
                      </>
                    )}
                  </td>
                  <td className="rule pr-3 text-right">
                    <Value of="jankaLbf">
                      {s.jankaLbf ? (inch ? s.jankaLbf : (s.jankaLbf * 0.00444822).toFixed(1)) : '–'}
                    </Value>
                  </td>
                  <td className="rule pr-3 text-right">
                    <Value of="moeGPa">{s.moeGPa ?? '–'}</Value>
                  </td>
                  <td>{s.easeOfBonding ?? '–'}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {rows.length === 0 && <p className="text-graphite p-4">No wood of that name.</p>}
      </Sideways>
      <h2 className="label pt-4 pb-1">Sources</h2>
      <ul className="text-graphite text-[13px]">
        {Object.entries(speciesSources).map(([key, source]) => (
          <li key={key}>{source}</li>
        ))}
        <li>Sheets and metals: {MATERIAL_SOURCE}. How thick layers and faces are: common practice.</li>
      </ul>
      <GlueTables search={wanted} />
    </Screen>
  );
}
