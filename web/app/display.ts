import { createContext, useContext } from 'react';
import { DEFAULT_DISPLAY, type Display } from '../../core/units';
import { useKitQuery } from './api';

/** How numbers are read in a part of the screen that shows another shop than the present one: one that is being set up. */
export const ShownIn = createContext<Display | undefined>(undefined);

/** How the shop reads numbers just now. */
export function useDisplay(): Display {
  const other = useContext(ShownIn);
  const own = useKitQuery(undefined, { skip: other !== undefined }).data?.shop.display;
  return other ?? own ?? DEFAULT_DISPLAY;
}
