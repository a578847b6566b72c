import { calendarFormat } from './calendar';
import type { Format } from './format';
import { draftFormat, jobFormat } from './job';
import { rackFormat } from './rack';
import { timelineFormat } from './timeline';

/** Every format, one line each: what the command line lists and the screens save. */
export const FORMATS: readonly Format<never>[] = [
  jobFormat,
  timelineFormat,
  rackFormat,
  calendarFormat,
  draftFormat,
];
