import { useCallback, useState } from 'react';
import type { ShopSnapshot } from '../../core/kit';
import { changeKit } from './kit';

/** Changes the kit from a screen that is not the kit's own, and says why where the server did not take it. */
export function useKitChange(): {
  change: (change: (shop: ShopSnapshot) => ShopSnapshot) => void;
  problem: string | undefined;
} {
  const [problem, setProblem] = useState<string>();
  const change = useCallback((next: (shop: ShopSnapshot) => ShopSnapshot) => changeKit(next, setProblem), []);
  return { change, problem };
}
