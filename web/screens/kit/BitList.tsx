import { freshId } from '../../app/ids';
import {
  type Bit,
  BIT_KINDS,
  type BitKind,
  bitFacts,
  type ShopSnapshot,
  topRpmOf,
  typed,
} from '../../../core/kit';
import { Choice } from '../../parts/Choice';
import { AddKind, Section, Size, Under } from './KitFields';
import { LabelNumber, changed, RemoveButton, without } from './TableParts';

const NONE = { mm: 0 };
const KINDS = (Object.keys(BIT_KINDS) as BitKind[]).map((kind) => ({
  value: kind,
  label: BIT_KINDS[kind].name,
}));
const SIZES = [
  ['diameter', 'Diameter', 'of its cutting edges'],
  ['body', 'Body', 'above the edges; wider than the cut, it rubs in deep ones'],
  ['cutting', 'Cutting length', 'of its edges'],
  ['shank', 'Shank', 'what the collet holds'],
  ['whole', 'Whole length', 'from the tip to the end of the shank'],
  ['transition', 'Widens at', 'from the tip to where a stepped one widens'],
] as const satisfies readonly (readonly [keyof Bit, string, string])[];

/** Cutters, bits and drills of the shop. Until the first is entered nobody knows what there is, and nothing counts as missing. */
export function BitList({ shop, onChange }: { shop: ShopSnapshot; onChange: (shop: ShopSnapshot) => void }) {
  const bits = shop.bits ?? [];
  const set = (next: Bit[]) => onChange({ ...shop, bits: next });
  return (
    <Section
      title="Cutters, bits and drills"
      says={
        shop.bits
          ? 'A step that wants one which is not here says so. Top speeds left empty follow common practice by diameter.'
          : 'None entered: Junta does not know what there is, and says of none that it is missing.'
      }
    >
      <ul className="flex flex-col gap-2">
        {bits.map((bit, i) => (
          <li key={bit.id} className="border-line flex flex-wrap items-end gap-x-2 gap-y-1.5 border-b pb-2">
            <Under name="Name">
              <input
                aria-label={`Name of bit ${i + 1}`}
                className="field w-48 font-sans!"
                value={bit.name}
                maxLength={60}
                onChange={(event) =>
                  event.target.value && set(changed(bits, i, { name: event.target.value }))
                }
              />
            </Under>
            <Under name="Kind" title={bitFacts(bit.kind).says}>
              <Choice
                label={`Kind of ${bit.name}`}
                hideLabel
                className="w-44"
                value={bit.kind}
                options={KINDS}
                onChange={(kind) => set(changed(bits, i, { kind: kind as BitKind }))}
              />
            </Under>
            {SIZES.filter(([key]) => key !== 'transition' || bitFacts(bit.kind).stepped).map(
              ([key, name, says]) => (
                <Under key={key} name={name} title={says}>
                  <Size
                    label={`${bit.name}, ${name.toLowerCase()}`}
                    value={bit[key] ?? NONE}
                    onChange={(value) => set(changed(bits, i, { [key]: value }))}
                  />
                </Under>
              ),
            )}
            <Under name="Top speed, rpm">
              <LabelNumber
                label={`${bit.name}, top speed`}
                value={bit.topRpm}
                least={1}
                most={100_000}
                placeholder={String(topRpmOf({ ...bit, topRpm: undefined } as Bit) ?? 'unknown')}
                width="w-[84px]"
                onChange={(topRpm) => set(changed(bits, i, { topRpm }))}
              />
            </Under>
            <RemoveButton name={bit.name} onRemove={() => set(without(bits, i))} />
          </li>
        ))}
      </ul>
      <AddKind
        label="Add a cutter, bit or drill"
        kinds={KINDS}
        first={
          bits.length === 0
            ? {
                says: 'With one entered, a step that wants another says so. A router sled wants a surfacing bit.',
                kind: 'surfacing',
                button: 'Add a surfacing bit',
              }
            : undefined
        }
        onAdd={(kind) =>
          set([
            ...bits,
            {
              id: freshId('bit', bits),
              name: BIT_KINDS[kind as BitKind].name,
              kind: kind as BitKind,
              diameter: typed('1/2'),
            },
          ])
        }
      />
    </Section>
  );
}
