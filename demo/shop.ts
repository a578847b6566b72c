import { defaultShop } from '../core/kit';

/** The invented shop that restores a disused lighthouse and its outbuildings on an invented island. */
export const demoShop = defaultShop('North Slip shop');
