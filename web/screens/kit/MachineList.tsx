import {
  asKind,
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
import { Choice } from '../../parts/Choice';
import { AddKind, Section, Size, spreadFields, Under } from './KitFields';
import { changed, freshId, RemoveButton, without } from './TableParts';

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
  nth,
  last,
  onChange,
  onRemove,
}: {
  machine: Machine;
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
        <RemoveButton name={machine.name} last={last} onRemove={onRemove} />
      </div>
      <p className="text-graphite pt-0.5 text-[13px]">
        {capital(worksText(does))}. {caution}
      </p>
    </li>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
