import { DEFAULT_DISPLAY, type Display } from '../../core/units';
import { useKitQuery } from './api';

/** How the shop reads numbers just now. */
export const useDisplay = (): Display => useKitQuery().data?.shop.display ?? DEFAULT_DISPLAY;
