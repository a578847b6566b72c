import { useSyncExternalStore } from 'react';

/** Narrower than the theme's `desk`: there is no room beside anything. */
const PHONE = '(width < 43.75rem)';
const FINGERS = '(pointer: coarse)';

const useMedia = (query: string): boolean =>
  useSyncExternalStore(
    (changed) => {
      const list = matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => matchMedia(query).matches,
  );

/** Whether the window is a phone's, kept up to date; for what cannot be laid out by style alone. */
export const usePhone = (): boolean => useMedia(PHONE);

/** Whether fingers are what points: on a phone or a tablet. */
export const useFingers = (): boolean => useMedia(FINGERS);
