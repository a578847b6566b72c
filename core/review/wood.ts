import type { Finding, Step } from '../document';
import { rips } from '../steps';
import { counted, sumOf } from '../units';
import type { ReviewContext } from './context';

/** Strips for which a breakdown found no board: their wood is not there yet, whatever the stick says. */
export function stripsWithoutBoard(step: Step, { build }: ReviewContext): Finding[] {
  const rip = rips(build).find(({ id }) => id === step.id);
  if (!rip || !build.breakdown) return [];
  const slots = build.assemblies.find(({ id }) => id === rip.assembly)?.slots ?? [];
  const bare = slots.filter(({ strip }) => strip?.board === undefined && !strip?.excluded);
  if (bare.length === 0) return [];
  const volume = sumOf(bare, ({ length, width, thickness }) => length.mm * width.mm * thickness.mm);
  return [
    {
      code: 'strips-without-board',
      step: step.id,
      severity: 'warning',
      message: [
        `${bare.length} of ${counted(slots.length, 'strip')} ${bare.length === 1 ? 'has' : 'have'} no board yet: `,
        { mm3: volume },
        ' are short. “Wood” shows why, and what can be done.',
      ],
      numbers: { strips: bare.length, of: slots.length, shortMm3: volume },
      fixes: [
        {
          label: 'Take them from elsewhere',
          edit: { do: 'setSlots', strips: bare.map(({ id }) => id), change: { strip: { excluded: true } } },
        },
      ],
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Strips for which the breakdown found no board. */
    'strips-without-board': true;
  }
}
