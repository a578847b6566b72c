import { FileUp } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { MOST_BYTES } from '../../../contract/bounds';
import type { FieldProblem } from '../../../contract/check';
import { problemText, useNewJobMutation } from '../../app/api';
import { newId } from '../../app/ids';
import { FileButton } from '../../parts/FileButton';

/** Reads a job from a file: the reason and the place where it cannot be. */
export function ImportJob() {
  const [problems, setProblems] = useState<FieldProblem[]>();
  const [newJob] = useNewJobMutation();
  const navigate = useNavigate();
  const take = async (file: File) => {
    setProblems(undefined);
    if (file.size > MOST_BYTES) {
      setProblems([
        {
          path: file.name,
          reason: `this file has ${(file.size / 1048576).toFixed(1)} MB; a job has at most ${MOST_BYTES / 1048576} MB. It was not read.`,
        },
      ]);
      return;
    }
    const { readJobFile } = await import('../../../contract/read');
    const checked = readJobFile(await file.text());
    if (!checked.ok) {
      setProblems(checked.problems);
      return;
    }
    const result = await newJob({ build: checked.build, write: newId() });
    if (result.data) void navigate(`/jobs/${result.data.id}`);
    else setProblems([{ path: file.name, reason: problemText(result.error) }]);
  };
  return (
    <>
      <FileButton label="Job file" accept=".json,application/json" onFile={(file) => void take(file)}>
        <FileUp size={15} aria-hidden /> Import
      </FileButton>
      {problems && (
        <div
          role="alert"
          className="sheet border-red absolute top-24 right-5 z-30 max-w-lg border-l-[3px] p-4 text-[14px] shadow-lg"
        >
          <p className="pb-1 font-semibold">This file was not imported</p>
          <ul>
            {problems.slice(0, 8).map((p) => (
              <li key={p.path + p.reason}>
                <span className="rule">{p.path}</span>: {p.reason}
              </li>
            ))}
          </ul>
          <button type="button" className="action mt-2" onClick={() => setProblems(undefined)}>
            Close
          </button>
        </div>
      )}
    </>
  );
}
