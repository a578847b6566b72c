import { sumOf } from '../units';
import { type Blank, blankVolumes } from '../solid';
import { density, findSpecies } from '../wood';

/** Mass of the wood of a blank at the shop's moisture, kg; wood that is not known weighs nothing. */
export const massOf = (blank: Blank): number =>
  sumOf(Object.entries(blankVolumes(blank)), ([id, mm3]) => densityOf(id) * mm3 * 1e-9);

/** Density of a wood by its id, kg/m3; nothing where it is not known. */
export const densityOf = (id: string): number => {
  const species = findSpecies(id);
  return species ? density(species) : 0;
};
