import type { BenchGate } from '../../../core/bench';
import { minutesText } from '../../../core/units';
import { Window } from '../../parts/Window';
import { localZone } from '../calendar/calendar-worker';
import { when } from '../today/moment';

const WHY: Record<BenchGate['kind'], string> = {
  clamps: 'The joint holds by its clamps until then: taken out too soon it opens.',
  settle: 'The joint is swollen with the water of the glue until then: planed flat now, it sinks later.',
  rest: 'Wood that has not come to rest moves after it was made flat.',
  coat: 'What is put on a coat that is wet underneath wrinkles and stays soft.',
  cure: 'A finish that has not hardened takes marks and lets water through.',
  outside: 'It is away.',
};

/** How long something still waits, in minutes rounded up: never “0 min” while it does. */
export const leftText = (until: number, now: number): string =>
  minutesText(Math.max(1, Math.ceil((until - now) / 60_000)));

/** Asked once, where a wait is not over: whether to begin all the same. */
export function GateWindow({
  gate,
  now,
  onWait,
  onBegin,
}: {
  gate: BenchGate;
  now: number;
  onWait: () => void;
  onBegin: () => void;
}) {
  return (
    <Window
      open
      title={`Wait ${leftText(gate.until, now)}: ${gate.name}`}
      description={`Until ${when(gate.until, now, localZone())}. ${WHY[gate.kind]}`}
      onClose={onWait}
    >
      <p className="pb-4">
        Who begins now is not asked again; that it was early is written down with the step.
      </p>
      <div className="grid grid-cols-2 gap-3">
        <button type="button" className="action action-main h-14 justify-center text-[18px]" onClick={onWait}>
          Wait
        </button>
        <button type="button" className="action h-14 justify-center text-[18px]" onClick={onBegin}>
          Begin all the same
        </button>
      </div>
    </Window>
  );
}
