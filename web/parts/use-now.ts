import { useEffect, useState } from 'react';
import { shopNow } from '../app/clock';

/** The time by the shop's clock, ms, read anew every so often: what is shown of a moment does not grow old on a screen left open. */
export function useNow(everyMs = 60_000): number {
  const [now, setNow] = useState(shopNow);
  useEffect(() => {
    const timer = setInterval(() => setNow(shopNow()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}
