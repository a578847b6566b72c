/** All that Junta knows of one kind of material: what tools do to it and what holds on it. */
export interface MaterialFacts {
  name: string;
  /** What it is, in one sentence. */
  says: string;
  /** Made in sheets: its own planes lie along its faces, however it was sawn. */
  sheet: boolean;
  /** Rough pieces of it are brought to thickness with knives, as wood is. */
  milled: boolean;
  /** Whether knives and large bits may meet it at all. */
  knives: 'yes' | 'never';
  /** Adhesives made for wood hold on it. */
  woodGlue: boolean;
  /** Why not, where it is not milled or not to meet knives, and what is done instead. */
  instead?: string;
  /** The usual caution, where someone could be hurt. */
  caution?: string;
}

/** The kinds of material. A new one is one entry here; what they do is common practice. */
export const MATERIAL_KINDS = {
  solid: {
    name: 'Solid wood',
    says: 'Sawn from a log.',
    sheet: false,
    milled: true,
    knives: 'yes',
    woodGlue: true,
  },
  plywood: {
    name: 'Plywood',
    says: 'Veneers glued crosswise: hardly moves along its sheet.',
    sheet: true,
    milled: false,
    knives: 'yes',
    woodGlue: true,
    instead: 'its faces are thin veneers; take it at the thickness it is sold in',
  },
  parallelVeneer: {
    name: 'Laminated veneer lumber',
    says: 'Veneers glued with their grain one way: stiff along it, and moves across it as wood does.',
    sheet: true,
    milled: true,
    knives: 'yes',
    woodGlue: true,
  },
  fibreboard: {
    name: 'Fibreboard',
    says: 'Wood fibres pressed to a sheet, with no grain.',
    sheet: true,
    milled: false,
    knives: 'yes',
    woodGlue: true,
    instead: 'its dense skins hold it flat; take it at the thickness it is sold in',
  },
  metal: {
    name: 'Metal',
    says: 'A strip or plate: moves with the heat and not with the damp.',
    sheet: true,
    milled: false,
    knives: 'never',
    woodGlue: false,
    instead: 'file, scrape or sand it flush',
    caution:
      'Metal under knives or a large bit breaks the edge and throws pieces. Take only abrasive, file or scraper to it, with eye protection; the machine’s manual comes first.',
  },
} as const satisfies Record<string, MaterialFacts>;

export type MaterialKind = keyof typeof MATERIAL_KINDS;
