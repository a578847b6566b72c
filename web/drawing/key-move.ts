import type { KeyboardEvent } from 'react';

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** What an arrow key moves by: a step, ten with Shift, mm to the right and upwards; undefined for another key. Keeps the page from rolling. */
export function movedByKey(event: KeyboardEvent, stepMm: number): { x: number; y: number } | undefined {
  const way = WAYS[event.key] as readonly [number, number] | undefined;
  if (!way) return undefined;
  event.preventDefault();
  const by = stepMm * (event.shiftKey ? 10 : 1);
  return { x: way[0] * by, y: way[1] * by };
}
