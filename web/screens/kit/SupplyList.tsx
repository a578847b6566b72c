import { freshId } from '../../app/ids';
import {
  SUPPLY_KINDS,
  type Supply,
  supplyFacts,
  type SupplyKind,
  type ShopSnapshot,
} from '../../../core/kit';
import { fromMinor, toMinor } from '../../../core/units';
import { Choice } from '../../parts/Choice';
import { SettledInput } from '../../parts/SettledInput';
import { AddKind, Section, Under } from './KitFields';
import { changed, LabelNumber, RemoveButton, without } from './TableParts';

const KINDS = (Object.keys(SUPPLY_KINDS) as SupplyKind[]).map((kind) => ({
  value: kind,
  label: SUPPLY_KINDS[kind].name,
}));
const UNITS = { piece: 'On hand', sheet: 'On hand, sheets', ml: 'On hand, ml', m: 'On hand, m' } as const;

/** Hardware and consumables on the shelf, with what is on hand and what one costs. */
export function SupplyList({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const supplies = shop.supplies ?? [];
  const set = (next: Supply[]) => onChange({ ...shop, supplies: next });
  const one = (at: number, part: { [K in keyof Supply]?: Supply[K] | undefined }) =>
    set(changed(supplies, at, part));
  // Nobody guesses a currency: the shop's, the one that another price of this shelf is in, or none until it is typed.
  const usual = shop.currency ?? supplies.find(({ currency }) => currency)?.currency;
  return (
    <Section
      title="Hardware and consumables"
      says={
        shop.supplies
          ? 'A step that wants more than is on hand says so, and the job lists what to buy.'
          : 'None entered: Junta does not know what there is, and says of nothing that it is missing.'
      }
    >
      <ul className="flex flex-col gap-2">
        {supplies.map((each, i) => {
          const { sizes, unit } = supplyFacts(each.kind);
          return (
            <li
              key={each.id}
              className="border-line flex flex-wrap items-end gap-x-2 gap-y-1.5 border-b pb-2"
            >
              <Under name="Name">
                <input
                  aria-label={`Name of supply ${i + 1}`}
                  className="field w-48 font-sans!"
                  value={each.name}
                  maxLength={60}
                  onChange={(event) => event.target.value && one(i, { name: event.target.value })}
                />
              </Under>
              <Under name="Kind">
                <Choice
                  label={`Kind of ${each.name}`}
                  hideLabel
                  className="w-44"
                  value={each.kind}
                  options={KINDS}
                  onChange={(kind) =>
                    one(i, { kind: kind as SupplyKind, size: supplyFacts(kind as SupplyKind).sizes?.[0] })
                  }
                />
              </Under>
              <Under name="Size">
                {sizes ? (
                  <Choice
                    label={`${each.name}, size`}
                    hideLabel
                    className="w-44"
                    value={each.size ?? ''}
                    options={sizes.map((size) => ({ value: size, label: size }))}
                    onChange={(size) => one(i, { size })}
                  />
                ) : (
                  <input
                    aria-label={`${each.name}, size`}
                    className="field w-28"
                    maxLength={40}
                    value={each.size ?? ''}
                    onChange={(event) => one(i, { size: event.target.value || undefined })}
                  />
                )}
              </Under>
              <Under name={UNITS[unit]}>
                <LabelNumber
                  label={`${each.name}, on hand`}
                  value={each.onHand}
                  least={0}
                  most={1_000_000}
                  placeholder="0"
                  width="w-[84px]"
                  onChange={(onHand) => one(i, { onHand: onHand ?? 0 })}
                />
              </Under>
              <Under name="Price of one">
                <LabelNumber
                  label={`${each.name}, price of one`}
                  value={
                    each.priceMinor === undefined
                      ? undefined
                      : fromMinor(each.priceMinor, each.currency ?? usual ?? '')
                  }
                  least={0}
                  most={1_000_000}
                  placeholder="unknown"
                  width="w-[84px]"
                  onChange={(price) =>
                    one(i, {
                      priceMinor:
                        price === undefined ? undefined : toMinor(price, each.currency ?? usual ?? ''),
                      currency: price === undefined ? undefined : (each.currency ?? usual),
                    })
                  }
                />
              </Under>
              {each.priceMinor !== undefined && (
                <Under name="Currency">
                  <SettledInput
                    aria-label={`${each.name}, currency`}
                    className="field w-16"
                    maxLength={3}
                    value={each.currency ?? ''}
                    read={(typed) => /^[A-Z]{3}$/.exec(typed.trim().toUpperCase())?.[0]}
                    onChange={(currency) => one(i, { currency })}
                  />
                </Under>
              )}
              <RemoveButton name={each.name} onRemove={() => set(without(supplies, i))} />
            </li>
          );
        })}
      </ul>
      <AddKind
        label="Add hardware or a consumable"
        kinds={KINDS}
        first={
          supplies.length === 0
            ? {
                says: 'With one entered, a job says what of it is short. Dowels or biscuits keep a wide glue-up flush.',
                kind: 'dowel',
                button: 'Add dowels',
              }
            : undefined
        }
        onAdd={(kind) => {
          const [size] = supplyFacts(kind as SupplyKind).sizes ?? [];
          set([
            ...supplies,
            {
              id: freshId('supply', supplies),
              name: [SUPPLY_KINDS[kind as SupplyKind].name, size].filter(Boolean).join(' '),
              kind: kind as SupplyKind,
              ...(size ? { size } : {}),
              onHand: 0,
            },
          ]);
        }}
      />
    </Section>
  );
}
