/** Lightness, green-red and blue-yellow of OKLab. */
export type OkLab = readonly [number, number, number];

/** Open vessels seen as dark dashes: diameter, pitch and length in mm, share of cells filled in early and late wood. */
export interface Pores {
  diameter: number;
  pitch: number;
  length: number;
  early: number;
  late: number;
  /** In ring-porous woods the large vessels end at this share of the ring; beyond it they are as dense as `late`. */
  earlyUntil: number;
  lightness: number;
}

/** Sheets of cells from pith to bark: thickness, height and pitch in mm, share of cells filled. */
export interface Rays {
  thickness: number;
  height: number;
  pitch: number;
  density: number;
  /** How much lighter a ray is on a quartersawn face, and darker on a flat-sawn one. */
  contrast: number;
}

/** What a wood looks like. Tuned by eye; no measurement stands behind it. */
export interface Look {
  ringMm: number;
  /** Share of the ring that is latewood, and how gradual its beginning is (0 abrupt, 1 a ramp). */
  lateShare: number;
  lateRamp: number;
  early: OkLab;
  late: OkLab;
  sap: OkLab;
  pores: Pores;
  rays: Rays;
  endDark: number;
  ringVariation: number;
  ringContrast: number;
  /** Lightness of streaks along the grain that follow no ring. */
  streak: number;
  /** Made in a works, not grown; undefined in wood. */
  made?: Made;
}

/** What a sheet or a metal looks like: layers along its faces, their directions, or none. */
export interface Made {
  /** Thickness of a layer, mm; 0 where there is none. */
  layerMm: number;
  /** Every other layer runs across. */
  crosswise: boolean;
  /** How light its line of glue is beside its wood; 0 for none. */
  glueLine: number;
  /** How strong its fibres show. */
  fibre: number;
}

/** Rays too fine to be seen. */
const NO_RAYS: Rays = { thickness: 0, height: 1, pitch: 1, density: 0, contrast: 0 };

const diffuse = ({
  diameter,
  pitch,
  length,
  early,
  late,
  lightness,
}: {
  diameter: number;
  pitch: number;
  length: number;
  early: number;
  late: number;
  lightness: number;
}): Pores => ({
  diameter,
  pitch,
  length,
  early,
  late,
  earlyUntil: 1,
  lightness,
});

const walnut: Look = {
  ringMm: 3.6,
  lateShare: 0.42,
  lateRamp: 1,
  early: [0.475, 0.022, 0.043],
  late: [0.37, 0.022, 0.036],
  sap: [0.78, 0.012, 0.06],
  pores: diffuse({ diameter: 0.19, pitch: 0.62, length: 9, early: 0.75, late: 0.3, lightness: 0.255 }),
  rays: { thickness: 0.03, height: 0.4, pitch: 0.25, density: 0.3, contrast: 0.03 },
  endDark: 0.16,
  ringVariation: 0.5,
  ringContrast: 0.45,
  streak: 0.022,
};
const maple: Look = {
  ringMm: 2.4,
  lateShare: 0.16,
  lateRamp: 1,
  early: [0.845, 0.01, 0.052],
  late: [0.77, 0.022, 0.066],
  sap: [0.87, 0.008, 0.045],
  pores: diffuse({ diameter: 0.08, pitch: 0.33, length: 3, early: 0.6, late: 0.5, lightness: 0.74 }),
  rays: { thickness: 0.09, height: 0.8, pitch: 0.3, density: 0.45, contrast: 0.035 },
  endDark: 0.12,
  ringVariation: 0.5,
  ringContrast: 0.4,
  streak: 0.012,
};
const cherry: Look = {
  ringMm: 2.8,
  lateShare: 0.25,
  lateRamp: 1,
  early: [0.665, 0.046, 0.074],
  late: [0.59, 0.054, 0.076],
  sap: [0.82, 0.014, 0.06],
  pores: diffuse({ diameter: 0.08, pitch: 0.33, length: 3, early: 0.7, late: 0.4, lightness: 0.56 }),
  rays: { thickness: 0.09, height: 1, pitch: 0.34, density: 0.45, contrast: 0.035 },
  endDark: 0.15,
  ringVariation: 0.45,
  ringContrast: 0.4,
  streak: 0.016,
};
const redOak: Look = {
  ringMm: 2.6,
  lateShare: 0.62,
  lateRamp: 0.15,
  early: [0.67, 0.03, 0.074],
  late: [0.745, 0.024, 0.07],
  sap: [0.8, 0.012, 0.06],
  pores: {
    diameter: 0.32,
    pitch: 0.52,
    length: 22,
    early: 0.85,
    late: 0.07,
    earlyUntil: 0.28,
    lightness: 0.46,
  },
  rays: { thickness: 0.34, height: 20, pitch: 1.7, density: 0.6, contrast: 0.06 },
  endDark: 0.14,
  ringVariation: 0.55,
  ringContrast: 0.4,
  streak: 0.014,
};
const whiteOak: Look = {
  ...redOak,
  early: [0.645, 0.02, 0.064],
  late: [0.715, 0.017, 0.06],
  rays: { thickness: 0.36, height: 34, pitch: 1.6, density: 0.65, contrast: 0.07 },
};
const ash: Look = {
  ringMm: 3,
  lateShare: 0.66,
  lateRamp: 0.2,
  early: [0.755, 0.018, 0.056],
  late: [0.845, 0.012, 0.046],
  sap: [0.86, 0.006, 0.048],
  pores: {
    diameter: 0.28,
    pitch: 0.48,
    length: 18,
    early: 0.85,
    late: 0.05,
    earlyUntil: 0.24,
    lightness: 0.6,
  },
  rays: { thickness: 0.05, height: 0.6, pitch: 0.3, density: 0.4, contrast: 0.015 },
  endDark: 0.13,
  ringVariation: 0.55,
  ringContrast: 0.4,
  streak: 0.012,
};
const beech: Look = {
  ringMm: 2.3,
  lateShare: 0.2,
  lateRamp: 0.9,
  early: [0.765, 0.026, 0.062],
  late: [0.715, 0.034, 0.068],
  sap: [0.8, 0.02, 0.06],
  pores: diffuse({ diameter: 0.06, pitch: 0.26, length: 2.4, early: 0.5, late: 0.35, lightness: 0.66 }),
  rays: { thickness: 0.16, height: 2.6, pitch: 0.8, density: 0.55, contrast: 0.055 },
  endDark: 0.13,
  ringVariation: 0.4,
  ringContrast: 0.3,
  streak: 0.01,
};
const pine: Look = {
  ringMm: 3.8,
  lateShare: 0.34,
  lateRamp: 0.75,
  early: [0.855, 0.008, 0.062],
  late: [0.715, 0.04, 0.088],
  sap: [0.88, 0.004, 0.05],
  pores: { diameter: 0.2, pitch: 3, length: 12, early: 0, late: 0.12, earlyUntil: 0.5, lightness: 0.6 },
  rays: NO_RAYS,
  endDark: 0.1,
  ringVariation: 0.55,
  ringContrast: 0.35,
  streak: 0.01,
};
const purpleheart: Look = {
  ringMm: 5,
  lateShare: 0.25,
  lateRamp: 0.8,
  early: [0.425, 0.088, -0.012],
  late: [0.375, 0.086, -0.016],
  sap: [0.8, 0.012, 0.05],
  pores: diffuse({ diameter: 0.13, pitch: 0.8, length: 8, early: 0.45, late: 0.4, lightness: 0.31 }),
  rays: { thickness: 0.03, height: 0.4, pitch: 0.25, density: 0.3, contrast: 0.02 },
  endDark: 0.16,
  ringVariation: 0.5,
  ringContrast: 0.4,
  streak: 0.02,
};
const wenge: Look = {
  ringMm: 1.9,
  lateShare: 0.5,
  lateRamp: 0.25,
  early: [0.4, 0.018, 0.032],
  late: [0.255, 0.014, 0.018],
  sap: [0.8, 0.01, 0.06],
  pores: diffuse({ diameter: 0.22, pitch: 1.1, length: 14, early: 0.4, late: 0.3, lightness: 0.2 }),
  rays: { thickness: 0.03, height: 0.5, pitch: 0.3, density: 0.3, contrast: 0.015 },
  endDark: 0.1,
  ringVariation: 0.35,
  ringContrast: 0.3,
  streak: 0.014,
};
const mahogany: Look = {
  ringMm: 4.2,
  lateShare: 0.25,
  lateRamp: 1,
  early: [0.56, 0.062, 0.064],
  late: [0.5, 0.062, 0.058],
  sap: [0.78, 0.014, 0.06],
  pores: diffuse({ diameter: 0.16, pitch: 0.6, length: 10, early: 0.5, late: 0.45, lightness: 0.36 }),
  rays: { thickness: 0.06, height: 0.5, pitch: 0.5, density: 0.4, contrast: 0.02 },
  endDark: 0.15,
  ringVariation: 0.4,
  ringContrast: 0.35,
  streak: 0.026,
};
const cedar: Look = {
  ...pine,
  ringMm: 2,
  early: [0.66, 0.052, 0.062],
  late: [0.55, 0.056, 0.058],
  sap: [0.84, 0.01, 0.055],
  lateShare: 0.26,
};

const tinted = (base: Look, early: OkLab, late: OkLab, more: Partial<Look> = {}): Look => ({
  ...base,
  early,
  late,
  ...more,
});

/** Nothing of what grew. */
const made = (early: OkLab, late: OkLab, how: Made): Look => ({
  ...maple,
  early,
  late,
  rays: NO_RAYS,
  endDark: how.fibre > 0.01 ? 0.12 : 0,
  streak: how.fibre,
  made: how,
});
const plies = (layerMm: number, crosswise: boolean): Made => ({
  layerMm,
  crosswise,
  glueLine: -0.13,
  fibre: 0.022,
});
const METAL: Made = { layerMm: 0, crosswise: false, glueLine: 0, fibre: 0.009 };

const looks = {
  walnut,
  maple,
  cherry,
  redOak,
  whiteOak,
  ash,
  beech,
  pine,
  purpleheart,
  wenge,
  mahogany,
  cedar,
  butternut: tinted(walnut, [0.66, 0.024, 0.06], [0.57, 0.026, 0.056]),
  birch: tinted(maple, [0.81, 0.016, 0.058], [0.76, 0.024, 0.064]),
  softMaple: tinted(maple, [0.8, 0.018, 0.056], [0.735, 0.028, 0.064]),
  pale: tinted(maple, [0.865, 0.004, 0.042], [0.82, 0.01, 0.05], { rays: NO_RAYS }),
  poplar: tinted(maple, [0.77, -0.008, 0.066], [0.71, -0.012, 0.072], { rays: NO_RAYS, streak: 0.03 }),
  hickory: tinted(ash, [0.68, 0.026, 0.068], [0.77, 0.018, 0.06]),
  elm: tinted(ash, [0.6, 0.03, 0.062], [0.69, 0.026, 0.062]),
  locust: tinted(ash, [0.6, 0.012, 0.09], [0.68, 0.006, 0.092]),
  sycamore: tinted(beech, [0.74, 0.026, 0.054], [0.69, 0.032, 0.06]),
  fir: tinted(pine, [0.77, 0.03, 0.07], [0.6, 0.058, 0.078], { ringMm: 2.6, lateShare: 0.4 }),
  spruce: tinted(pine, [0.87, 0.006, 0.05], [0.77, 0.026, 0.07], { ringMm: 2.2, lateShare: 0.22 }),
  redwood: tinted(cedar, [0.58, 0.072, 0.06], [0.47, 0.072, 0.052]),
  teak: tinted(ash, [0.52, 0.034, 0.066], [0.6, 0.032, 0.074]),
  padauk: tinted(mahogany, [0.52, 0.13, 0.096], [0.44, 0.12, 0.08], { streak: 0.03 }),
  bubinga: tinted(mahogany, [0.5, 0.08, 0.05], [0.42, 0.078, 0.042]),
  jatoba: tinted(mahogany, [0.51, 0.078, 0.064], [0.45, 0.074, 0.056]),
  ipe: tinted(mahogany, [0.42, 0.024, 0.04], [0.36, 0.022, 0.034], { rays: NO_RAYS }),
  zebra: tinted(wenge, [0.73, 0.018, 0.07], [0.4, 0.026, 0.044], { ringMm: 4, lateShare: 0.4 }),
  olive: tinted(walnut, [0.68, 0.014, 0.078], [0.5, 0.02, 0.056], { ringVariation: 0.8, streak: 0.04 }),
  birchPlywood: made([0.83, 0.014, 0.058], [0.72, 0.024, 0.062], plies(1.4, true)),
  softPlywood: made([0.79, 0.024, 0.07], [0.66, 0.04, 0.074], plies(2.8, true)),
  veneerLumber: made([0.76, 0.026, 0.072], [0.7, 0.034, 0.074], plies(3.2, false)),
  fibreboard: made([0.66, 0.022, 0.05], [0.66, 0.022, 0.05], { ...METAL, fibre: 0.006 }),
  brass: made([0.76, 0.008, 0.105], [0.76, 0.008, 0.105], METAL),
  aluminium: made([0.83, -0.002, -0.004], [0.83, -0.002, -0.004], METAL),
  steel: made([0.64, -0.003, -0.008], [0.64, -0.003, -0.008], METAL),
} satisfies Record<string, Look>;

export type LookName = keyof typeof looks;

/** One order of fields for all: the figure function reads them for every pixel, and engines like one shape best. */
const oneShape = (look: Look): Look => {
  const {
    ringMm,
    lateShare,
    lateRamp,
    early,
    late,
    sap,
    pores,
    rays,
    endDark,
    ringVariation,
    ringContrast,
    streak,
    made: how,
  } = look;
  return {
    ringMm,
    lateShare,
    lateRamp,
    early,
    late,
    sap,
    pores,
    rays,
    endDark,
    ringVariation,
    ringContrast,
    streak,
    made: how,
  };
};

/** Looks by name. A species without its own is drawn like its nearest relation, in its own colour where given. */
export const LOOKS = Object.fromEntries(
  Object.entries(looks).map(([name, look]) => [name, oneShape(look)]),
) as Record<LookName, Look>;
