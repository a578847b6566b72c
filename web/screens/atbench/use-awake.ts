import { useEffect } from 'react';

/** Keeps the screen lit while it is shown, where the browser may: only on a secure page. */
export function useAwake(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const hold = async () => {
      if (document.visibilityState !== 'visible') return;
      try {
        lock = await navigator.wakeLock.request('screen');
        if (gone) await lock.release();
      } catch {
        // A low battery or a setting says no: the screen goes dark as it always does.
      }
    };
    void hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, []);
}
