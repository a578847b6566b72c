import { freshId } from '../../app/ids';
import {
  asKind,
  DIAL_READS,
  type DialReads,
  type LimitName,
  LIMITS,
  type Machine,
  MACHINE_KIND_NAMES,
  MACHINE_KINDS,
  type MachineKind,
  machineFacts,
  type ShopSnapshot,
  usualMachine,
  worksText,
} from '../../../core/kit';
import { fromMinor, toMinor } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { NumberField } from '../../parts/NumberField';
import { AddKind, Section, Size, spreadFields, Under } from './KitFields';
import { changed, RemoveButton, without } from './TableParts';

const NONE = { mm: 0 };
const KINDS = MACHINE_KIND_NAMES.map((kind) => ({ value: kind, label: MACHINE_KINDS[kind].name }));

/** The machines of the shop, each with what its kind does and the limits its kind has. */
export function MachineList({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const set = (machines: Machine[]) => onChange({ ...shop, machines });
  return (
    <Section title="Machines">
      <ul className="flex flex-col gap-2">
        {shop.machines.map((machine, i) => (
          <MachineCard
            key={machine.id}
            machine={machine}
            currency={shop.currency ?? ''}
            nth={i + 1}
            last={shop.machines.length === 1}
            onChange={(part) => set(changed(shop.machines, i, part))}
            onRemove={() => set(without(shop.machines, i))}
          />
        ))}
      </ul>
      <AddKind
        label="Add a machine"
        kinds={KINDS}
        first={
          shop.machines.length === 0
            ? {
                says: 'No machine: what they take is checked against their limits, say a wide panel against the widest that the planer takes.',
                kind: 'planer',
                button: 'Add a planer',
              }
            : undefined
        }
        onAdd={(kind) =>
          set([...shop.machines, usualMachine(kind as MachineKind, freshId('machine', shop.machines))])
        }
      />
    </Section>
  );
}

function MachineCard({
  machine,
  currency,
  nth,
  last,
  onChange,
  onRemove,
}: {
  machine: Machine;
  /** The shop's, for what another shop asks; empty where it has none. */
  currency: string;
  nth: number;
  last: boolean;
  onChange: (part: Partial<Machine>) => void;
  onRemove: () => void;
}) {
  const { does, limits, says, caution } = machineFacts(machine);
  return (
    <li className="border-line border-b pb-2 last:border-0">
      <div className="flex flex-wrap items-end gap-x-2 gap-y-1.5">
        <Under name="Machine">
          <input
            aria-label={`Name of machine ${nth}`}
            className="field w-36 font-sans!"
            value={machine.name}
            maxLength={60}
            onChange={(event) => event.target.value && onChange({ name: event.target.value })}
          />
        </Under>
        <Under name="Kind" title={says}>
          <Choice
            label={`Kind of ${machine.name}`}
            hideLabel
            className="w-44"
            value={machine.kind}
            options={KINDS}
            onChange={(kind) => onChange(asKind(machine, kind as MachineKind))}
          />
        </Under>
        {(Object.keys(LIMITS) as LimitName[])
          .filter((name) => name in limits)
          .map((name) => (
            <Under key={name} name={LIMITS[name].name} title={LIMITS[name].says}>
              <Size
                label={`${machine.name}, ${LIMITS[name].name.toLowerCase()}`}
                value={machine[name] ?? NONE}
                onChange={(value) => onChange({ [name]: value })}
              />
            </Under>
          ))}
        {spreadFields(machine.setting, (setting) => onChange({ setting })).map(
          ({ key, name, label, value, set }) => (
            <Under key={key} name={name}>
              <Size label={`${machine.name}, ${label}`} value={value} onChange={set} />
            </Under>
          ),
        )}
        <MachineMore machine={machine} currency={currency} onChange={onChange} />
        <RemoveButton name={machine.name} last={last} onRemove={onRemove} />
      </div>
      <p className="text-graphite pt-0.5 text-[13px]">
        {capital(worksText(does))}. {caution}
      </p>
    </li>
  );
}

/** What is entered of a machine besides lengths: its square, its knives, what it costs in another shop. */
function MachineMore({
  machine,
  currency,
  onChange,
}: {
  machine: Machine;
  currency: string;
  onChange: (change: Partial<Machine>) => void;
}) {
  const display = useDisplay();
  const { does, cuts, away } = machineFacts(machine);
  const inch = display.system === 'inch';
  const far = { unit: inch ? 'ft' : 'm', metres: inch ? 0.3048 : 1 };
  const price = currency ? `, ${currency}` : '';
  const fields: readonly (readonly [
    key: 'offSquare' | 'knivesRanM' | 'knivesLastM' | 'days' | 'priceMinor' | 'transportMinor',
    name: string,
    title: string,
    shown: (value: number) => number,
    kept: (value: number) => number,
    most: number,
  ])[] = [
    ...(does.some((work) => work === 'joint' || work === 'mill')
      ? ([
          [
            'offSquare',
            'Off square by, °',
            'How far its fence may be off a right angle; 0: nobody said',
            same,
            same,
            5,
          ],
        ] as const)
      : []),
    ...(cuts === 'knives'
      ? ([
          [
            'knivesRanM',
            `Knives ran, ${far.unit}`,
            'How much wood they have met since they were fresh',
            rounded(far.metres),
            (value: number) => value * far.metres,
            1_000_000,
          ],
          [
            'knivesLastM',
            `Knives last, ${far.unit}`,
            'How much wood a set meets before it is worn; 0: nobody said',
            rounded(far.metres),
            (value: number) => value * far.metres,
            1_000_000,
          ],
        ] as const)
      : []),
    ...(away
      ? ([
          ['days', 'Days there and back', 'Until the piece is back', same, same, 365],
          [
            'priceMinor',
            `Price a piece${price}`,
            'What they ask for a piece',
            (minor: number) => fromMinor(minor, currency),
            (value: number) => toMinor(value, currency),
            1_000_000,
          ],
          [
            'transportMinor',
            `The way${price}`,
            'What bringing and fetching costs',
            (minor: number) => fromMinor(minor, currency),
            (value: number) => toMinor(value, currency),
            1_000_000,
          ],
        ] as const)
      : []),
  ];
  const scale = 'dial' in machineFacts(machine).limits && (
    <Under key="reads" name="Its scale reads" title="How its settings are set">
      <Choice
        label={`${machine.name}, its scale reads`}
        hideLabel
        className="w-44"
        value={machine.reads ?? 'shop'}
        options={[
          { value: 'shop', label: 'As the shop' },
          ...DIAL_READS.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={(reads) => onChange({ reads: reads === 'shop' ? undefined : (reads as DialReads) })}
      />
    </Under>
  );
  const numbers = fields.map(([key, name, title, shown, kept, most]) => (
    <Under key={key} name={name} title={title}>
      <span className="w-[88px]">
        <NumberField
          label={`${machine.name}, ${name.toLowerCase()}`}
          hideLabel
          value={shown(machine[key] ?? 0)}
          least={0}
          most={most}
          onChange={(value) => onChange({ [key]: value === 0 ? undefined : kept(value) })}
        />
      </span>
    </Under>
  ));
  return (
    <>
      {scale}
      {numbers}
    </>
  );
}
const same = (value: number) => value;
const rounded = (unit: number) => (value: number) => Math.round(value / unit);

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
