import { breakdownRows } from './breakdown';
import { browserRows } from './browser';
import { patternRows } from './patterns';
import { pictureRows } from './picture';
import { pressureRows } from './pressure';
import { serverRows } from './server';
import { solidRows } from './solid';

const rows = [
  ...(await solidRows()),
  ...pictureRows(),
  ...patternRows(),
  ...pressureRows(),
  ...(await breakdownRows()),
  ...(await serverRows()),
  ...(await browserRows()),
];
const wide = (key: 'what' | 'measured' | 'wanted') => Math.max(...rows.map((row) => row[key].length));
for (const { what, measured, wanted, met } of rows)
  console.log(
    `${met ? 'met ' : 'MISS'}  ${what.padEnd(wide('what'))}  ${measured.padEnd(wide('measured'))}  ${wanted}`,
  );
