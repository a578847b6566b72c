import { createNoise3D } from 'simplex-noise';
import { LOOKS, woodAt, type Sample } from '../core/wood';
import { quietMs, type Row } from './timing';

const CALLS = 60_000;

/** The picture's cost a sample, in units of one call of a common library's 3-D simplex noise, in this run. */
export function pictureRows(): Row[] {
  const noise = createNoise3D(() => 0.37);
  let sink = 0;
  const reference = quietMs(() => {
    for (let i = 0; i < CALLS; i++) sink += noise(i * 0.013, (i % 700) * 0.07, i * 0.0031);
  });
  const out = new Float64Array(3);
  const costs = Object.entries(LOOKS).map(([name, look]) => {
    const sample: Sample = { look, seed: 3, shade: 2, nx: 0, ny: 1, nz: 0, px: 0.25 };
    const ms = quietMs(() => {
      for (let i = 0; i < CALLS; i++) woodAt((i % 700) * 0.25, 60, Math.floor(i / 700) * 0.25, sample, out);
    }, 300);
    return { name, cost: ms / reference };
  });
  const worst = costs.reduce((a, b) => (b.cost > a.cost ? b : a));
  const mean = costs.reduce((sum, { cost }) => sum + cost, 0) / costs.length;
  if (!Number.isFinite(sink)) throw new Error('noise ran away');
  return [
    {
      what: 'one sample of the picture, in calls of 3-D simplex noise',
      measured: `${mean.toFixed(1)} on the mean, ${worst.cost.toFixed(1)} for ${worst.name}`,
      wanted: 'at most 20',
      met: worst.cost <= 20,
    },
  ];
}
