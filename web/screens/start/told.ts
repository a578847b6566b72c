import { useEffect, useState } from 'react';
import type { SetUp } from '../../../core/kit';

/** What is told so far; nothing of it is stored before the end. */
export type Told = Partial<SetUp>;

const KEY = 'junta-setup';

function before(): Told {
  try {
    return JSON.parse(sessionStorage.getItem(KEY) ?? '{}') as Told;
  } catch {
    // A browser that keeps nothing, or something else under this name: begun anew.
    return {};
  }
}

/** Forgets what was told. */
export function forgetTold(): void {
  try {
    sessionStorage.removeItem(KEY);
  } catch {
    // Nothing was kept.
  }
}

/** What is told of a shop that is being set up: a page loaded again in the middle goes on where it was. */
export function useTold(): [Told, (change: Told) => void] {
  const [told, setTold] = useState(before);
  useEffect(() => {
    try {
      sessionStorage.setItem(KEY, JSON.stringify(told));
    } catch {
      // It holds as long as the page.
    }
  }, [told]);
  return [told, (change) => setTold((now) => ({ ...now, ...change }))];
}
