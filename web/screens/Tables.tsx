import { type ReactNode, useState } from 'react';
import {
  density,
  MATERIAL_KINDS,
  MATERIAL_SOURCE,
  SPECIES,
  speciesSources,
  type Species,
} from '../../core/wood';
import { dialled, type Display } from '../../core/units';
import { useDisplay } from '../app/display';
import { Swatch } from '../parts/Swatch';
import { GlueTables } from './tables/GlueTables';
import { type Column, DataTable } from '../parts/DataTable';
import { Bar, Screen } from '../parts/layout';

const UNSURE = new Set(['unsure', 'derived']);

/** A value of a wood as sure as it is: slanted where it is not. */
const Value = ({ wood, of, children }: { wood: Species; of: string; children: ReactNode }) =>
  UNSURE.has(wood.certainty[of] ?? '') ? (
    <i title={wood.certainty[of]}>{children}</i>
  ) : (
    <span title={wood.certainty[of]}>{children}</span>
  );

function columns(display: Display): Column<Species>[] {
  const inch = display.system === 'inch';
  const stiffness = dialled('stiffness', display);
  return [
    {
      head: 'Wood',
      cell: (s) => (
        <span className="flex items-center gap-2">
          <Swatch species={s.id} size={18} />
          <span>
            {s.common}{' '}
            <span className="text-graphite text-[13px] font-normal italic">
              {s.latin || (s.material && MATERIAL_KINDS[s.material].says)}
            </span>
          </span>
        </span>
      ),
    },
    {
      head: 'Density at 12 %',
      under: inch ? 'lb/ft³' : 'kg/m³',
      right: true,
      cell: (s) => (
        <Value wood={s} of="specificGravity12">
          {(density(s, 12) * (inch ? 0.062428 : 1)).toFixed(0)}
        </Value>
      ),
    },
    {
      head: 'Shrinkage, green to dry',
      under: 'radial, tangential %',
      right: true,
      cell: (s) => (
        <>
          <Value wood={s} of="shrinkageRadialPct">
            {s.shrinkageRadialPct ?? '–'}
          </Value>
          ,{' '}
          <Value wood={s} of="shrinkageTangentialPct">
            {s.shrinkageTangentialPct ?? '–'}
          </Value>
        </>
      ),
    },
    {
      head: 'Change per 1 % moisture',
      under: 'radial, tangential; of sheets through, across, along',
      right: true,
      cell: (s) => (
        <>
          <Value wood={s} of="coefficientRadial">
            {s.coefficientRadial?.toFixed(5)}
          </Value>
          ,{' '}
          <Value wood={s} of="coefficientTangential">
            {s.coefficientTangential?.toFixed(5)}
          </Value>
          {s.coefficientAlong !== undefined && (
            <>
              ,{' '}
              <Value wood={s} of="coefficientAlong">
                {s.coefficientAlong.toFixed(5)}
              </Value>
            </>
          )}
        </>
      ),
    },
    {
      head: 'Side hardness',
      under: inch ? 'lbf' : 'kN',
      right: true,
      cell: (s) => (
        <Value wood={s} of="jankaLbf">
          {s.jankaLbf ? (inch ? s.jankaLbf : (s.jankaLbf * 0.00444822).toFixed(1)) : '–'}
        </Value>
      ),
    },
    {
      head: 'Bending modulus',
      under: stiffness.unit,
      right: true,
      cell: (s) => (
        <Value wood={s} of="moeGPa">
          {s.moeGPa === undefined ? '–' : stiffness.shown(s.moeGPa)}
        </Value>
      ),
    },
    { head: 'Gluing', words: true, cell: (s) => s.easeOfBonding ?? '–' },
  ];
}

/** The woods Junta knows, with how well each value is known; adhesives, clamps and elastic values below. */
export function Tables() {
  const [search, setSearch] = useState('');
  const display = useDisplay();
  const wanted = search.trim().toLowerCase();
  const rows = SPECIES.filter(({ common, latin }) => `${common} ${latin}`.toLowerCase().includes(wanted));
  return (
    <Screen>
      <Bar className="pb-3">
        <h1 className="text-[20px] font-semibold">Woods</h1>
        <span className="text-graphite text-[14px]">
          Unverified, check the label or the handbook: values of the handbooks below, written down without the
          books at hand. <i>Slanted</i>: unsure or derived.
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
      <DataTable label="Woods" rows={rows} keyOf={({ id }) => id} columns={columns(display)} />
      {rows.length === 0 && <p className="text-graphite p-4">No wood of that name.</p>}
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
