import { useEffect, useRef, useState } from 'react';
import { type BuildDocument, type Finding, phraseText } from '../../../core/document';
import { stepTitle } from '../../../core/steps';
import { counted } from '../../../core/units';
import { findingKey, toLookAt } from '../../../core/view';
import { useDisplay } from '../../app/display';
import { useAppSelector } from '../../app/store';
import { lazily } from '../../parts/lazily';

const FindingsWindow = lazily(() => import('./FindingsWindow'), 'FindingsWindow');

const NONE: readonly Finding[] = [];

/** How many things are to be looked at, and all of them in the order of the work; new ones are said once, politely. */
export function FindingsList({
  build,
  open,
  onOpen,
  onClose,
}: {
  build: BuildDocument;
  open: boolean;
  onOpen: () => void;
  onClose: () => void;
}) {
  const predicted = useAppSelector(({ job }) => job.outlook?.findings);
  const id = useAppSelector(({ job }) => job.id);
  const findings = predicted ?? NONE;
  const list = toLookAt(build, findings);
  return (
    <>
      {predicted && <News key={id} findings={predicted} build={build} />}
      {list.length > 0 && (
        <button
          type="button"
          className="action text-red"
          title="All of them, in the order of the work (F)"
          onClick={onOpen}
        >
          {counted(list.length, 'thing')} to look at
        </button>
      )}
      {open && <FindingsWindow build={build} list={list} onClose={onClose} />}
    </>
  );
}

/** Findings that were not there before, said to those who do not see the ring; those a job opens with are not news. */
function News({ findings, build }: { findings: readonly Finding[]; build: BuildDocument }) {
  const display = useDisplay();
  const known = useRef<ReadonlySet<string>>(undefined);
  const [said, setSaid] = useState('');
  useEffect(() => {
    const serious = toLookAt(build, findings);
    const before = known.current;
    known.current = new Set(serious.map(findingKey));
    if (!before) return;
    const fresh = serious.filter((finding) => !before.has(findingKey(finding)));
    if (fresh.length === 0) return;
    const step = build.steps.find(({ id }) => id === fresh[0].step);
    setSaid(
      `${counted(fresh.length, 'new finding')}. ${step ? `${stepTitle(build, step)}: ` : ''}${phraseText(fresh[0].message, display)}`,
    );
  }, [findings, build, display]);
  return (
    <span role="status" aria-live="polite" className="sr-only" data-testid="news">
      {said}
    </span>
  );
}
