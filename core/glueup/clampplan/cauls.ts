/** A caul across a panel: as a beam its ends are clamped to and the panel holds up. */
export interface CaulBeam {
  /** Between its clamps, mm. */
  spanMm: number;
  /** Force of both its clamps together, N. */
  loadN: number;
  /** In the direction it is bent, and across it, mm. */
  heightMm: number;
  widthMm: number;
  /** Young's modulus along its grain, MPa. */
  modulusMPa: number;
}

/**
 * Camber a caul needs so that it lies straight, and so presses evenly, once both ends are clamped: its deflection
 * under the same load spread evenly, 5 W L^3 / (384 E I) (beam on two supports, any handbook of statics). mm.
 */
export const caulCamber = ({ spanMm, loadN, heightMm, widthMm, modulusMPa }: CaulBeam): number =>
  (5 * loadN * spanMm ** 3) / (384 * modulusMPa * ((widthMm * heightMm ** 3) / 12));
