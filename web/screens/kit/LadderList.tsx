import { ladderFor, LADDER_NAMES, LADDERS, type LadderAfter, type ShopSnapshot } from '../../../core/kit';
import { CountsField } from '../../parts/CountsField';
import { Section } from './KitFields';
import { Columns } from '../../parts/layout';

/** The shop's ladders of grits, one for each way in which a face comes to be sanded; the usual ones until they are changed. */
export function LadderList({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const set = (after: LadderAfter, grits: number[]) => {
    const rest = (shop.ladders ?? []).filter((own) => own.after !== after);
    const usual = grits.length === 0 || grits.join() === LADDERS[after].grits.join();
    const ladders = usual ? rest : [...rest, { after, grits }];
    const { ladders: _before, ...bare } = shop;
    onChange(ladders.length > 0 ? { ...bare, ladders } : bare);
  };
  return (
    <Section
      title="Sanding ladders"
      says="Grits from coarse to fine, by how the face was made. A surface step begins with one; emptied, the usual one comes back."
    >
      <Columns list least={18} most={2} gap={1.5} className="gap-y-3">
        {LADDER_NAMES.map((after) => (
          <li key={after}>
            <CountsField
              label={LADDERS[after].name}
              values={ladderFor(shop, after)}
              least={16}
              most={3000}
              many={12}
              onChange={(grits) => set(after, grits)}
            />
          </li>
        ))}
      </Columns>
    </Section>
  );
}
