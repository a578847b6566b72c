import { freshId } from '../../app/ids';
import {
  ADHESIVE_CLASSES,
  adhesiveFacts,
  adhesivesOf,
  climateOf,
  glueTimes,
  type Adhesive,
  type ShopSnapshot,
} from '../../../core/kit';
import { dialled, minutesText, temperatureText } from '../../../core/units';
import { today } from '../../app/day';
import { Choice } from '../../parts/Choice';
import { Tick } from '../../parts/Tick';
import { AddButton, changed, EntryTable, LabelNumber, NameCell, RemoveCell, without } from './TableParts';
import { Sideways } from '../../parts/layout';
import { useDisplay } from '../../app/display';

const AS_IT_IS = { shown: (value: number) => value, stored: (value: number) => value };

/** The shelf: bottles with their class, what is left and until when, and what their labels say otherwise. */
export function BottleTable({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const display = useDisplay();
  const units = {
    leftG: dialled('smallMass', display),
    leastC: dialled('temperature', display),
    gPerM2: dialled('spread', display),
  };
  const bottles = adhesivesOf(shop);
  const set = (adhesives: readonly Adhesive[]) => onChange({ ...shop, adhesives: [...adhesives] });
  const one = (i: number, part: { [K in keyof Adhesive]?: Adhesive[K] | undefined }) =>
    set(changed(bottles, i, part));
  return (
    <section aria-label="Glue" className="sheet p-4">
      <h2 className="pb-1 text-[17px] font-semibold">Glue</h2>
      <p className="text-graphite pb-2 text-[13.5px]">
        Empty fields follow the class, at {temperatureText(21, display)} and 50 % (unverified, check the
        label); a label that says otherwise goes first.
      </p>
      {bottles.length === 0 && (
        <p className="pb-2 text-[14px]">
          No glue: every glue-up will say that none is fit for it. One line is a bottle, say a yellow PVA that
          is good until spring.
        </p>
      )}
      <Sideways label="Bottles on the shelf">
        <EntryTable
          heads={[
            'Bottle',
            'Class',
            `Left, ${units.leftG.unit}`,
            'Good until',
            'Batch',
            'Open, min',
            'To last clamp, min',
            'In clamps, min',
            `Least, ${units.leastC.unit}`,
            `Spread, ${units.gPerM2.unit}`,
            'Label allows food',
            'At this air',
          ]}
        >
          {bottles.map((each, i) => {
            const facts = adhesiveFacts({ id: '', name: '', class: each.class });
            const times = glueTimes(adhesiveFacts(each), climateOf(shop));
            const past = each.expires !== undefined && each.expires < today();
            const number = (
              name: 'leftG' | 'openMin' | 'closedMin' | 'clampMin' | 'leastC' | 'gPerM2',
              label: string,
              { usual, least, most }: { usual: number | undefined; least: number; most: number },
            ) => {
              const { shown, stored } = name in units ? units[name as keyof typeof units] : AS_IT_IS;
              const value = each[name];
              return (
                <td className="pr-2">
                  <LabelNumber
                    label={`${each.name}, ${label}`}
                    value={value === undefined ? undefined : shown(value)}
                    placeholder={usual === undefined ? 'unknown' : String(shown(usual))}
                    least={shown(least)}
                    most={shown(most)}
                    onChange={(typed) => one(i, { [name]: typed === undefined ? undefined : stored(typed) })}
                  />
                </td>
              );
            };
            return (
              <tr key={each.id} className="align-top">
                <NameCell
                  label={`Name of bottle ${i + 1}`}
                  width="w-40"
                  value={each.name}
                  onChange={(name) => one(i, { name })}
                />
                <td className="pr-2">
                  <Choice
                    label={`Class of ${each.name}`}
                    hideLabel
                    className="w-40"
                    value={each.class}
                    options={ADHESIVE_CLASSES.map(({ id, name }) => ({ value: id, label: name }))}
                    onChange={(next) => one(i, { class: next })}
                  />
                </td>
                {number('leftG', 'left', { usual: undefined, least: 0, most: 1_000_000 })}
                <td className="pr-2">
                  <input
                    type="date"
                    aria-label={`${each.name}, good until`}
                    className={`field w-[132px] ${past ? 'text-red' : ''}`}
                    value={each.expires ?? ''}
                    onChange={(event) => one(i, { expires: event.target.value || undefined })}
                  />
                  {past && <span className="text-red block text-[12px]">✕ past its date</span>}
                </td>
                <td className="pr-2">
                  <input
                    aria-label={`${each.name}, batch`}
                    className="field w-24"
                    maxLength={40}
                    value={each.batch ?? ''}
                    onChange={(event) => one(i, { batch: event.target.value || undefined })}
                  />
                </td>
                {number('openMin', 'open minutes', {
                  usual: facts.openMin[0],
                  least: 0.05,
                  most: 1440,
                })}
                {number('closedMin', 'minutes to the last clamp', {
                  usual: facts.closedMin[0],
                  least: 0.05,
                  most: 1440,
                })}
                {number('clampMin', 'minutes in clamps', {
                  usual: facts.clampMin[1],
                  least: 0.05,
                  most: 10_080,
                })}
                {number('leastC', 'least temperature', {
                  usual: facts.leastC,
                  least: -10,
                  most: 40,
                })}
                {number('gPerM2', 'spread', {
                  usual: facts.typicalGPerM2,
                  least: 10,
                  most: 1000,
                })}
                <td className="pr-2">
                  <Tick
                    label="yes"
                    checked={each.foodOk ?? false}
                    onChange={(foodOk) => one(i, { foodOk: foodOk || undefined })}
                  />
                </td>
                <td className="rule pt-1.5 pr-2 text-[13.5px] whitespace-nowrap">
                  {minutesText(times.openMin)}, {minutesText(times.closedMin)}
                </td>
                <RemoveCell name={each.name} onRemove={() => set(without(bottles, i))} />
              </tr>
            );
          })}
        </EntryTable>
      </Sideways>
      <AddButton
        onAdd={() =>
          set([...bottles, { id: freshId('glue', bottles), name: 'Another bottle', class: 'pva_yellow' }])
        }
      >
        Add a bottle
      </AddButton>
    </section>
  );
}
