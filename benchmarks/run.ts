import { breakdownRows } from './breakdown';
import { browserRows } from './browser';
import { featureRows } from './features';
import { logRows } from './log';
import { movementRows } from './movement';
import { patternRows } from './patterns';
import { pictureRows } from './picture';
import { pressureRows } from './pressure';
import { serverRows } from './server';
import { solidRows } from './solid';

/** Every group of measurements, by the name it is asked for: `npm run bench -- solid server`. */
const GROUPS = {
  solid: solidRows,
  features: featureRows,
  movement: movementRows,
  picture: pictureRows,
  patterns: patternRows,
  pressure: pressureRows,
  breakdown: breakdownRows,
  log: logRows,
  server: serverRows,
  browser: browserRows,
};
const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in GROUPS));
if (unknown.length > 0)
  throw new Error(`No measurements “${unknown.join(', ')}”; there are ${Object.keys(GROUPS).join(', ')}.`);
const WIDE = { what: 100, measured: 50 };
// Each group is printed as it comes, so that one that fails loses none of the others.
for (const [name, measure] of Object.entries(GROUPS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  for (const { what, measured, wanted, met } of await measure())
    console.log(
      `${met ? 'met ' : 'MISS'}  ${what.padEnd(WIDE.what)}  ${measured.padEnd(WIDE.measured)}  ${wanted}`,
    );
}
