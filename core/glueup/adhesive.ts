import { type BuildDocument, GLUE_USES, type GlueUse, type Phrase } from '../document';
import {
  type Adhesive,
  adhesiveFacts,
  type AdhesiveFacts,
  adhesivesOf,
  climateOf,
  glueAmount,
  type GlueAmount,
  glueTimes,
  type GlueTimes,
  gluingOf,
  type ShopSnapshot,
  WATER_CLASSES,
  type WaterClass,
} from '../kit';
import { counted, rising } from '../units';
import { findSpecies, lookOf, materialOf, speciesName } from '../wood';
import type { GlueUp } from './glueup';
import { crewOf } from './pace';

/** Parts thinner than this count as thin leaves, mm: water-borne glue curls them (common practice). */
const THIN_LEAF = 4;
/** Lightness below which a wood counts as dark, OKLab: a pale glue line shows. */
const DARK = 0.5;
/** A slow glue-up wants at least so long to the last clamp, minutes. */
const SLOW_MIN = 15;

/** What the glue must stand: as the maker said, or guessed from the piece's purpose and its woods. */
export function usesOf(
  build: BuildDocument,
  glueUps: readonly GlueUp[],
): { uses: GlueUse[]; guessed: boolean } {
  if (build.uses) return { uses: build.uses, guessed: false };
  const text =
    `${build.name} ${build.use} ${build.targets.map(({ purpose }) => purpose).join(' ')}`.toLowerCase();
  const species = [...new Set(build.assemblies.flatMap(({ slots }) => slots.map((slot) => slot.species)))];
  const says: Record<GlueUse, boolean> = {
    food: /\b(food|kitchen|galley|chopping|cutting|bread|serving|cheese)\b/.test(text),
    wet: /\b(wet|wash|bath|sink|galley|chopping)\b/.test(text),
    outdoors: /\b(outdoors?|outside|garden|boat|tiller|deck)\b/.test(text),
    oily: species.some((id) => findSpecies(id)?.easeOfBonding?.includes('difficult') ?? false),
    dark: species.length > 0 && species.every((id) => lookOf(id).early[0] < DARK),
    thin: glueUps.some(({ thinnestMm }) => thinnestMm < THIN_LEAF),
    slow: false,
  };
  return { uses: GLUE_USES.filter(({ id }) => says[id]).map(({ id }) => id), guessed: true };
}

/** One bottle judged for one glue-up. */
export interface JudgedBottle {
  bottle: Adhesive;
  facts: AdhesiveFacts;
  times: GlueTimes;
  /** What speaks against it: any one and it is not proposed. */
  against: Phrase[][];
  /** What is worth knowing. */
  notes: Phrase[][];
}

const atLeast = (has: WaterClass, needs: WaterClass): boolean =>
  WATER_CLASSES.indexOf(has) >= WATER_CLASSES.indexOf(needs);

/** What of a glue-up a bottle is judged by: minutes to the last clamp, the day (YYYY-MM-DD), its woods. */
export interface GlueUpSeen {
  closedUsedMin: number;
  today: string;
  species: readonly string[];
}

/** Judges a bottle by uses, the shop's air, its acts' minutes and the day (YYYY-MM-DD). */
export function judgeBottle(
  bottle: Adhesive,
  uses: readonly GlueUse[],
  shop: ShopSnapshot,
  { closedUsedMin, today, species }: GlueUpSeen,
): JudgedBottle {
  const facts = adhesiveFacts(bottle);
  const climate = climateOf(shop);
  const times = glueTimes(facts, climate);
  const against: Phrase[][] = [];
  const notes: Phrase[][] = [];
  if (bottle.expires && bottle.expires < today)
    against.push([`Past its date, ${bottle.expires}: strings or lumps mean that it is spoilt.`]);
  if (climate.temperatureC < facts.leastC)
    against.push([
      'The shop is at ',
      { celsius: climate.temperatureC },
      '; this glue wants at least ',
      { celsius: facts.leastC },
      ': colder, it dries chalky and holds little.',
    ]);
  if (uses.includes('food') && !bottle.foodOk)
    against.push([
      facts.food === 'no'
        ? 'Not used where food is cut.'
        : 'For food only if its label says so (21 CFR 175.105): note it on the bottle in the Kit.',
    ]);
  if (uses.includes('wet') && !atLeast(facts.water, 'D3'))
    against.push([`Water class ${facts.water}; a piece that gets wet wants D3 at least (EN 204).`]);
  if (uses.includes('outdoors') && !atLeast(facts.water, 'D4'))
    against.push([`Water class ${facts.water}; outdoors wants D4 at least (EN 204).`]);
  const metal = species.find((id) => !materialOf(id).woodGlue);
  if (metal && !facts.holdsMetal)
    against.push([
      `Hardly holds on ${speciesName(metal).toLowerCase()}: roughen and degrease it, and use epoxy.`,
    ]);
  if (facts.leastMoisturePct && shop.woodMoisturePct < facts.leastMoisturePct)
    notes.push([
      `It sets by moisture: the wood stands at ${shop.woodMoisturePct} %, it wants ${facts.leastMoisturePct} %. Mist one face.`,
    ]);
  if (uses.includes('oily'))
    notes.push([
      'Oily or dense wood: plane fresh, wipe the joint with fast solvent, glue at once; try a joint first.',
    ]);
  if (uses.includes('dark') && ['pale', 'clear', 'tan'].includes(facts.colour))
    notes.push([`Dries ${facts.colour}: on dark wood a thick line shows.`]);
  if (uses.includes('thin') && facts.cures === 'drying')
    notes.push([
      'Its water curls thin leaves: spread thin, press between flat boards, or use one without water.',
    ]);
  if (uses.includes('slow') && times.closedMin < SLOW_MIN)
    against.push(['Sets in ', { minutes: times.closedMin }, ': too fast for a slow glue-up.']);
  if (closedUsedMin > times.closedMin)
    against.push([
      'The glue-up takes ',
      { minutes: closedUsedMin },
      '; it sets in ',
      { minutes: times.closedMin },
      '.',
    ]);
  if (facts.contactOnly) notes.push(['Held together only: squeezing starves the joint.']);
  if (facts.hazard) notes.push([`Care: ${facts.hazard}.`]);
  return { bottle, facts, times, against, notes };
}

/** All bottles of the shelf for one glue-up, those that suit first, in the shelf's own order. */
export function judgeShelf(uses: readonly GlueUse[], shop: ShopSnapshot, seen: GlueUpSeen): JudgedBottle[] {
  return adhesivesOf(shop)
    .map((bottle) => judgeBottle(bottle, uses, shop, seen))
    .toSorted(rising((a) => a.against.length));
}

/** Glue for one glue-up, all its blanks. */
export function amountFor(glueUp: GlueUp, facts: AdhesiveFacts, shop: ShopSnapshot): GlueAmount {
  const { faces, applicator } = crewOf(glueUp, shop);
  return glueAmount(facts, glueUp.areaMm2 * glueUp.blanks, { faces, applicator });
}

/** What end grain in a joint means for its strength, or undefined where all is long grain. */
export function strengthWords({ sides, areaMm2, endJoints }: GlueUp): Phrase[] | undefined {
  const end = sides['end grain'];
  if (areaMm2 <= 0 || end / areaMm2 < 0.005) return undefined;
  const share = Math.round((100 * end) / areaMm2);
  return [
    { count: share },
    ` % of the glued area${endJoints > 0 ? ` (${counted(endJoints, 'end joint')})` : ''} meets end grain: such a joint holds perhaps a quarter of a long-grain one (common practice), too little to carry a load by itself.`,
  ];
}

/** Gates after the clamps are tight, hours: when to scrape, unclamp and surface. */
export interface Gates {
  scrapeH: number;
  unclampH: number;
  /** Before it may be stressed, as the glue asks. */
  stressH: number;
  surfaceH: number;
}

/** The rubbery half hour, the label's or the night's clamp time, and the wait for the joint to lose its water (common practice). */
export function gatesOf(times: GlueTimes | undefined, shop: ShopSnapshot): Gates {
  const practice = gluingOf(shop);
  const label = (times?.clampMin ?? 60) / 60;
  const unclampH = practice.unclamp === 'overnight' ? Math.max(12, label) : label;
  const scrapeH = practice.squeezeOut === 'wet' ? 0 : practice.squeezeOut === 'rubbery' ? 0.5 : unclampH;
  return {
    scrapeH,
    unclampH,
    stressH: (times?.stressedMin ?? 1440) / 60,
    surfaceH: Math.max(practice.surfaceWaitH, unclampH),
  };
}
