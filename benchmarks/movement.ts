import { run } from '../core/run';
import { movementSheet } from '../core/view';
import { block } from './solid';
import { quietMs, type Row } from './timing';

/** What a year of movement costs: the sheet of a block played afresh, against playing it alone. */
export function movementRows(): Row[] {
  return [
    [8, 12],
    [16, 20],
  ].map(([columns, rows]) => {
    const build = block(columns, rows);
    const alone = quietMs(() => run(build));
    const both = quietMs(() => movementSheet(build, run(build)));
    return {
      what: `a year of movement of ${columns * rows} cells, played afresh, against playing alone`,
      measured: `${(both / alone).toFixed(1)} times (${both.toFixed(1)} ms, ${alone.toFixed(1)})`,
      wanted: 'at most 5 times',
      met: both / alone <= 5,
    };
  });
}
