import { useState } from 'react';
import type { BuildDocument, Step } from '../../../core/document';
import { useAppSelector } from '../../app/store';
import { lazily } from '../../parts/lazily';
import { Failures } from '../failed/Failures';
import { Notes } from '../notes/Notes';

const FailureWindow = lazily(() => import('../failed/FailureWindow'), 'FailureWindow');

/** Photos and notes of the step. */
export function Noted({ build, step }: { build: BuildDocument; step: Step }) {
  const id = useAppSelector(({ job }) => job.id);
  if (id === undefined || step.off) return null;
  return (
    <div className="pt-2 text-[14px]">
      <Notes place={{ job: id, step: step.id }} build={build} />
    </div>
  );
}

/** What failed at the step, and the way to tell that something did. */
export function Failed({ build, step }: { build: BuildDocument; step: Step }) {
  const [open, setOpen] = useState(false);
  const [now] = useState(() => Date.now());
  return (
    <div className="flex flex-col gap-1.5 pt-2 text-[14px]">
      <Failures build={build} step={step.id} now={now} />
      {!step.off && (
        <button type="button" className="action self-start" onClick={() => setOpen(true)}>
          Something failed here …
        </button>
      )}
      {open && <FailureWindow build={build} step={step.id} onClose={() => setOpen(false)} />}
    </div>
  );
}
