import { TriangleAlert } from 'lucide-react';
import type { ReadyItem } from '../../../../core/glueup';
import { Say } from './parts';

/** What must lie ready before the bottle is opened; with `onTick` each can be ticked off. */
export function ReadyList({
  items,
  ticked,
  onTick,
  large = false,
}: {
  items: readonly ReadyItem[];
  ticked?: ReadonlySet<string>;
  onTick?: (id: string) => void;
  large?: boolean;
}) {
  // Alone on a screen it stands right under the screen's heading.
  const Heading = large ? 'h2' : 'h3';
  return (
    <section aria-label="Ready before the bottle is opened">
      <Heading className={large ? 'pb-2 text-[20px] font-semibold' : 'label pb-1'}>
        Ready before the bottle is opened
      </Heading>
      <ul className={large ? 'flex flex-col gap-1 text-[18px]' : 'flex flex-col gap-0.5 text-[14px]'}>
        {items.map((item) => {
          const words = (
            <span className={item.caution ? 'font-medium' : ''}>
              {item.caution && (
                <TriangleAlert size={15} className="text-red mr-1 inline align-[-2px]" aria-label="Caution" />
              )}
              <Say phrase={item.words} />
            </span>
          );
          return (
            <li key={item.id}>
              {onTick ? (
                <label className="flex min-h-11 items-center gap-3">
                  <input
                    type="checkbox"
                    className="accent-chalk h-6 w-6 shrink-0"
                    checked={ticked?.has(item.id) ?? false}
                    onChange={() => onTick(item.id)}
                  />
                  {words}
                </label>
              ) : (
                <span className="flex gap-2">
                  <span aria-hidden className="text-graphite">
                    ·
                  </span>
                  {words}
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
