import type { Step } from '../document';
import { doesWork, type ShopSnapshot, sawDoes } from '../kit';
import { roomOf } from '../steps';

/** The saws or machines of a kit that do what a step wants of them, and the one it names now, whatever that does. */
export function toolsFor(
  step: Step,
  of: string,
  shop: ShopSnapshot,
  now: unknown,
): { id: string; name: string }[] {
  const { machining, sawing } = roomOf(step);
  if (of === 'saw') {
    const works = sawing?.work(step) ?? [];
    return shop.saws.filter((saw) => saw.id === now || works.every((work) => sawDoes(saw, work)));
  }
  const work = machining?.work;
  return shop.machines.filter((machine) => machine.id === now || !work || doesWork(machine, work));
}
