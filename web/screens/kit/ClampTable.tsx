import { freshId } from '../../app/ids';
import {
  CLAMP_KINDS,
  CLAMP_SOURCE,
  clampKind,
  clampsOf,
  type ClampSet,
  type ShopSnapshot,
} from '../../../core/kit';
import { dialled, forceText, lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { AddButton, changed, EntryTable, NameCell, RemoveCell, without } from './TableParts';
import { Sideways } from '../../parts/layout';

/** The clamp rack: how many of which, how far they open, and what a hand gets out of one. */
export function ClampTable({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const display = useDisplay();
  const sets = clampsOf(shop);
  const inch = display.system === 'inch';
  const force = dialled('force', display);
  const set = (clamps: readonly ClampSet[]) => onChange({ ...shop, clamps: [...clamps] });
  const one = (i: number, part: Partial<ClampSet>) => set(changed(sets, i, part));
  return (
    <section aria-label="Clamps" className="sheet p-4">
      <h2 className="pb-1 text-[17px] font-semibold">Clamps</h2>
      <p className="text-graphite pb-2 text-[13.5px]">{CLAMP_SOURCE}</p>
      {sets.length === 0 && (
        <p className="pb-2 text-[14px]">
          No clamps: every glue-up will say how many it wants and how hard. One line is a set alike, say four
          that open {lengthText(610, display)}.
        </p>
      )}
      <Sideways label="Sets on hand">
        <EntryTable
          heads={[
            'Clamps',
            'Kind',
            'How many',
            'Opens to',
            `By hand, ${force.unit}`,
            'Pad along',
            'Pad across',
          ]}
        >
          {sets.map((each, i) => {
            const kind = clampKind(each.kind);
            return (
              <tr key={each.id} className="align-top">
                <NameCell
                  label={`Name of clamps ${i + 1}`}
                  width="w-56"
                  value={each.name}
                  onChange={(name) => one(i, { name })}
                />
                <td className="pr-2">
                  <Choice
                    label={`Kind of ${each.name}`}
                    hideLabel
                    className="w-64"
                    value={each.kind}
                    options={CLAMP_KINDS.map(({ id, name }) => ({ value: id, label: name }))}
                    onChange={(next) => {
                      const [along, across] = clampKind(next).padMm;
                      const [least, most] = clampKind(next).handN;
                      one(i, {
                        kind: next,
                        padLength: { mm: along },
                        padWidth: { mm: across },
                        forceN: Math.round((least + most) / 2),
                      });
                    }}
                  />
                </td>
                <td className="w-20 pr-2">
                  <CountField
                    label={`${each.name}, how many`}
                    hideLabel
                    value={each.count}
                    least={0}
                    most={500}
                    onChange={(count) => one(i, { count })}
                  />
                </td>
                <td className="w-28 pr-2">
                  <LengthField
                    label={`${each.name}, opens to`}
                    hideLabel
                    value={each.opening}
                    display={display}
                    rule={{ minMm: 0, maxMm: 10_000 }}
                    onChange={(opening) => one(i, { opening })}
                  />
                </td>
                <td className="w-32 pr-2">
                  <NumberField
                    label={`${each.name}, force by hand`}
                    hideLabel
                    value={force.shown(each.forceN)}
                    least={1}
                    most={inch ? 20_000 : 90_000}
                    onChange={(value) => one(i, { forceN: force.stored(value) })}
                  />
                  <span className="text-graphite block text-[12px] whitespace-nowrap">
                    a hand: {forceText(kind.handN[0], display)} to {forceText(kind.handN[1], display)}
                  </span>
                </td>
                <td className="w-24 pr-2">
                  <LengthField
                    label={`${each.name}, pad along`}
                    hideLabel
                    value={each.padLength}
                    display={display}
                    rule={{ minMm: 0, maxMm: 1000 }}
                    onChange={(padLength) => one(i, { padLength })}
                  />
                </td>
                <td className="w-24 pr-2">
                  <LengthField
                    label={`${each.name}, pad across`}
                    hideLabel
                    value={each.padWidth}
                    display={display}
                    rule={{ minMm: 0, maxMm: 1000 }}
                    onChange={(padWidth) => one(i, { padWidth })}
                  />
                </td>
                <RemoveCell name={each.name} onRemove={() => set(without(sets, i))} />
              </tr>
            );
          })}
        </EntryTable>
      </Sideways>
      <AddButton
        onAdd={() =>
          set([
            ...sets,
            {
              id: freshId('clamps', sets),
              name: 'More clamps',
              kind: 'f_heavy',
              count: 4,
              opening: { mm: 609.6 },
              forceN: 2500,
              padLength: { mm: 35 },
              padWidth: { mm: 35 },
            },
          ])
        }
      >
        Add clamps
      </AddButton>
    </section>
  );
}
