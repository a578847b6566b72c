import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import { mustEdit } from '../../../core/edit';
import type { Proposal, Proposals, Purpose } from '../../../core/layup';
import type { GlueStep } from '../../../core/steps';
import { lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { JobPicture } from '../../drawing/JobPicture';
import { Choice } from '../../parts/Choice';
import { Window } from '../../parts/Window';
import type { LayUpWorker } from '../../workers/layup.worker';
import { useEdit } from './use-edit';

const PURPOSES: { value: Purpose; label: string }[] = [
  { value: 'vanish', label: 'Joints that disappear' },
  { value: 'even', label: 'An even run from dark to light' },
  { value: 'contrast', label: 'Greatest contrast' },
  { value: 'apart', label: 'No two alike together' },
  { value: 'symmetric', label: 'Symmetric about the middle' },
  { value: 'rings', label: 'Rings alternating' },
  { value: 'planing', label: 'All planing one way' },
];

/** Orders of the strips for a purpose, side by side, each with what it is made of. */
export function ProposeWindow({
  build,
  step,
  onClose,
}: {
  build: BuildDocument;
  step: GlueStep;
  onClose: () => void;
}) {
  const edit = useEdit();
  const [purpose, setPurpose] = useState<Purpose>('vanish');
  const [found, setFound] = useState<Proposals>();
  const [running, setRunning] = useState(true);
  const [trouble, setTrouble] = useState<string>();
  const worker = useRef<Remote<LayUpWorker>>(undefined);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/layup.worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<LayUpWorker>(thread);
    worker.current = remote;
    setFound(undefined);
    setRunning(true);
    setTrouble(undefined);
    remote
      .propose(build, step.id, purpose, proxy(setFound))
      .then((answer) => {
        setFound(answer);
        setRunning(false);
        if (!answer) setTrouble('Orders are proposed for glue-ups of up to 80 strips side by side.');
      })
      .catch((error: unknown) => setTrouble(`No order could be proposed: ${(error as Error).message}`));
    return () => thread.terminate();
  }, [build, step.id, purpose]);
  const locked = step.parts?.filter((part) => part.locked).length ?? 0;
  return (
    <Window
      title="Propose an order"
      description={
        locked > 0
          ? `${locked} locked ${locked === 1 ? 'strip stays' : 'strips stay'} where they lie.`
          : 'Lock a strip on the bench (L) to keep it where it lies.'
      }
      open
      wide
      onClose={onClose}
    >
      <div className="flex items-end gap-4 pb-3">
        <Choice
          label="What for"
          value={purpose}
          options={PURPOSES}
          onChange={(next) => setPurpose(next as Purpose)}
          className="w-72"
        />
        <p role="status" className="pb-1 text-[14px]">
          {running ? 'Looking for better ones …' : found && verdict(found)}
        </p>
        {running && (
          <button type="button" className="action" onClick={() => void worker.current?.stop()}>
            Stop
          </button>
        )}
      </div>
      {trouble && (
        <p role="alert" className="text-red">
          {trouble}
        </p>
      )}
      <div className="grid grid-cols-3 gap-4">
        {found?.answers.map((answer, i) => (
          <Answer
            key={answer.order.strips.join() + answer.order.ways.join()}
            nth={i + 1}
            answer={answer}
            now={found.now}
            build={build}
            step={step}
            onUse={() => {
              edit({ do: 'layParts', step: step.id, parts: answer.parts });
              onClose();
            }}
          />
        ))}
      </div>
    </Window>
  );
}

const round = (value: number): string => (Math.round(value * 10) / 10).toString();

function verdict({ proven, bound, answers }: Proposals): string {
  const [best] = answers;
  if (!best) return 'The locks leave no other order.';
  if (proven) return 'The first is the best there is: every order, flip and roll was weighed.';
  const over = best.cost > 0 ? Math.round((100 * (best.cost - bound)) / best.cost) : 0;
  return `The best found; no order can be below ${round(bound)}, so at most ${over} % could be gained.`;
}

function Answer({
  nth,
  answer,
  now,
  build,
  step,
  onUse,
}: {
  nth: number;
  answer: Proposal;
  now: number;
  build: BuildDocument;
  step: GlueStep;
  onUse: () => void;
}) {
  const display = useDisplay();
  const shown = useMemo(
    () => mustEdit(build, { do: 'layParts', step: step.id, parts: answer.parts }),
    [build, step.id, answer.parts],
  );
  return (
    <section aria-label={`Order ${nth}`} className="flex min-w-0 flex-col gap-2">
      <div className="h-36">
        <JobPicture build={shown} step={step.id} />
      </div>
      <p className="text-[15px]">
        <strong className="rule">{round(answer.cost)}</strong>
        <span className="text-graphite text-[13px]"> altogether; as laid now {round(now)}</span>
      </p>
      <dl className="text-[13px] leading-snug">
        {answer.scores.map(({ name, weight, sum, of }) => (
          <div key={name} className="flex justify-between gap-2">
            <dt>{name}</dt>
            <dd className="rule whitespace-nowrap">
              {of === 'length'
                ? `${lengthText(sum, display)}, counts ${round(weight * sum)}`
                : `${weight} × ${round(sum)}`}
            </dd>
          </div>
        ))}
      </dl>
      <button type="button" className="action mt-auto" onClick={onUse}>
        Use order {nth}
      </button>
    </section>
  );
}
