import { describe, expect, it } from 'vitest';
import { APPLICATORS, gluingOf } from '../kit';
import { run } from '../run';
import { build, GLUE, shop, slot } from '../steps/steps.fixture';
import { layAids } from './aids';
import { planClamps } from './clampplan';
import { glueUpOf } from './glueup';
import { rehearse } from './pace';

/** Minutes to spread the one joint of two strips so long and so thick, mm. */
function spreading(length: number, thickness: number): number {
  const document = build([slot('s1', length, 60, thickness), slot('s2', length, 60, thickness)], [GLUE]);
  const timeline = run(document);
  const glueUp = glueUpOf(document, timeline, 'glue');
  if (!glueUp) throw new Error('no glue-up');
  const { acts } = rehearse(glueUp, planClamps(glueUp, shop), layAids(document, timeline, glueUp), shop);
  const [act] = acts.filter((each) => each.act === 'spread');
  return act.minutes - gluingOf(shop).pace.jointMin;
}

describe('spreading', () => {
  const { pace, applicator, spreadFaces } = gluingOf(shop);
  const perM = (APPLICATORS.find(({ id }) => id === applicator)?.minPerM ?? 0) * pace.spreading * spreadFaces;
  it('takes its time by the metre of a joint 20 mm high', () => {
    expect(spreading(500, 20)).toBeCloseTo(0.5 * perM, 9);
    expect(spreading(1000, 20)).toBeCloseTo(perM, 9);
  });
  it('goes faster on what is broader: three quarters for each metre more', () => {
    expect(spreading(1000, 40)).toBeCloseTo(1.75 * perM, 9);
    expect(spreading(2000, 40)).toBeCloseTo(3.25 * perM, 9);
  });
});
