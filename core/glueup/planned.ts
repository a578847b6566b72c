import { type BuildDocument, type GlueUse, type Phrase, targetOfStep, timesMade } from '../document';
import { CLAMP_SCHOOLS, climateOf, equilibriumMoisture, type GlueAmount, isClimateKnown } from '../kit';
import type { Timeline } from '../steps';
import {
  amountFor,
  type Gates,
  gatesOf,
  judgeBottle,
  type JudgedBottle,
  judgeShelf,
  strengthWords,
  usesOf,
} from './adhesive';
import { type AidLayout, layAids, needsAids } from './aids';
import { bottleFor, type ClampPlan, planClamps } from './clampplan';
import { type GlueUp, glueUpOf, glueUpsOf } from './glueup';
import { type Rehearsal, rehearse } from './pace';
import { type ReadyItem, readyList } from './ready';
import { type Sessions, sessionsOf } from './sessions';
import { type Staging, stagingOf, whyOwnStage } from './staging';

/** Everything planned for one glue-up, as the screens read it. Plain data. */
export interface PlannedGlueUp {
  glueUp: GlueUp;
  clamps: ClampPlan;
  /** Where several glue-ups alike are wanted: how they are shared out to what the shop can hold. */
  sessions?: Sessions;
  aids: AidLayout;
  needsAids?: { widthMm: number; limitMm: number };
  rehearsal: Rehearsal;
  /** Bottles of the shelf, those that suit first; and the one in use. */
  shelf: JudgedBottle[];
  bottle?: JudgedBottle;
  amount?: GlueAmount;
  uses: GlueUse[];
  usesGuessed: boolean;
  strength?: Phrase[];
  gates: Gates;
  ready: ReadyItem[];
  staging?: Staging;
  /** Why it is a stage of its own. */
  why: Phrase[][];
  /** Moisture the wood comes to in the shop's air, %. */
  woodMoisturePct?: number;
}

/** Plans one glue-up whole; undefined for any other step or one that was not reached. `today` as YYYY-MM-DD. */
export function plannedGlueUp(
  build: BuildDocument,
  timeline: Timeline,
  stepId: string,
  today: string,
): PlannedGlueUp | undefined {
  const { shop } = build;
  const glueUp = glueUpOf(build, timeline, stepId);
  if (!glueUp || glueUp.lines.length === 0) return undefined;
  const clamps = planClamps(
    glueUp,
    shop,
    CLAMP_SCHOOLS.map(({ id }) => id),
  );
  const aids = layAids(build, timeline, glueUp);
  const needs = needsAids(glueUp, shop);
  const rehearsal = rehearse(glueUp, clamps, aids, shop);
  const { uses, guessed } = usesOf(build, glueUpsOf(build, timeline));
  const chosen = bottleFor(glueUp, shop);
  const seen = { closedUsedMin: rehearsal.closedUsedMin, today, species: glueUp.species };
  const bottle = chosen && judgeBottle(chosen, uses, shop, seen);
  const amount = bottle && amountFor(glueUp, bottle.facts, shop);
  const strength = strengthWords(glueUp);
  const staging = stagingOf(build, timeline, glueUp);
  const climate = climateOf(shop);
  const times = timesMade(build, targetOfStep(build, glueUp.step));
  return {
    glueUp,
    clamps,
    ...(times > 1 ? { sessions: sessionsOf(times, clamps.picks, shop) } : {}),
    aids,
    ...(needs ? { needsAids: needs } : {}),
    rehearsal,
    shelf: judgeShelf(uses, shop, seen),
    ...(bottle ? { bottle } : {}),
    ...(amount ? { amount } : {}),
    uses,
    usesGuessed: guessed,
    ...(strength ? { strength } : {}),
    gates: gatesOf(bottle?.times, shop),
    ready: readyList(glueUp, clamps, { aids, amount, shop }),
    ...(staging ? { staging } : {}),
    why: whyOwnStage(build, glueUp),
    ...(isClimateKnown(climate) ? { woodMoisturePct: equilibriumMoisture(climate) } : {}),
  };
}
