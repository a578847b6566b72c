import { X } from 'lucide-react';
import { practiceOf, type ShopSnapshot } from '../../../core/kit';
import { Toggle } from '../../parts/Toggle';
import { counted } from '../../../core/units';

/** Where makers disagree about a lay-up: which way this shop goes, with the reason for each; and its own lay-ups. */
export function PracticeChoice({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const practice = practiceOf(shop);
  const set = (change: Partial<typeof practice>) =>
    onChange({ ...shop, practice: { ...practice, ...change } });
  return (
    <section aria-label="Practice" className="sheet p-4">
      <h2 className="pb-2 text-[17px] font-semibold">Practice</h2>
      <div className="grid grid-cols-2 gap-6 max-desk:grid-cols-1">
        <div className="flex flex-col gap-1.5">
          <Toggle
            label="Growth rings"
            value={practice.rings}
            options={[
              { value: 'bestFaces', label: 'Best faces up' },
              { value: 'alternate', label: 'Alternate' },
            ]}
            onChange={(rings) => set({ rings })}
          />
          <p className="text-graphite text-[13.5px]">
            Alternating spreads the cup as small ripples; best faces up gives one broad curve, which is easier
            to hold down. A repeat is pointed out only where this shop alternates.
          </p>
        </div>
        <div className="flex flex-col gap-1.5">
          <Toggle
            label="What goes first"
            value={practice.first}
            options={[
              { value: 'figure', label: 'Figure that hides the joint' },
              { value: 'planing', label: 'All planing one way' },
            ]}
            onChange={(first) => set({ first })}
          />
          <p className="text-graphite text-[13.5px]">
            Fibres that agree plane clean in one pass; figure that runs through hides the joint and asks for
            lighter cuts. Opposed fibres are pointed out only where planing goes first.
          </p>
        </div>
      </div>
      <div className="flex flex-col gap-1.5 pt-4">
        <Toggle
          label="End grain under a planer’s knives"
          value={practice.endGrain ?? 'never'}
          options={[
            { value: 'never', label: 'Never' },
            { value: 'light', label: 'Finest passes, chamfered or backed' },
          ]}
          onChange={(endGrain) => set({ endGrain })}
        />
        <p className="text-graphite text-[13.5px]">
          Knives that meet end grain can break the block and throw it back: Junta plans a sander, a router
          sled or hand planes. Who does it takes the finest passes, with sharp knives, and a chamfer or
          backing on every edge that outlasts what comes off. The machine’s manual comes first.
        </p>
      </div>
      {(shop.layUps?.length ?? 0) > 0 && (
        <>
          <h3 className="label pt-3 pb-1">Own lay-ups</h3>
          <ul className="flex flex-wrap gap-2">
            {shop.layUps?.map((rule) => (
              <li
                key={rule.id}
                className="border-line flex items-center gap-2 rounded border bg-white px-2 py-1"
              >
                {rule.name}, {counted(rule.strips.length, 'strip')}
                <button
                  type="button"
                  aria-label={`Forget ${rule.name}`}
                  onClick={() =>
                    onChange({ ...shop, layUps: shop.layUps?.filter(({ id }) => id !== rule.id) })
                  }
                >
                  <X size={14} />
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
