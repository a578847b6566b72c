import { FileUp, Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { JobSummary } from '../../contract/api';
import { MOST_BYTES } from '../../contract/bounds';
import type { FieldProblem } from '../../contract/check';
import { laths } from '../../core/steps';
import { problemText, useJobQuery, useJobsQuery, useNewJobMutation } from '../app/api';
import { useDisplay } from '../app/display';
import { newId } from '../app/ids';
import { JobPicture } from '../drawing/JobPicture';
import { FileButton } from '../parts/FileButton';
import { Measure } from '../parts/Measure';
import { Bar, Screen } from '../parts/layout';

/** Pieces are drawn to one scale, so that a board looks small beside a table: mm in one pixel. */
const SHELF_SCALE = 4.3;

/** All jobs of the shop, each with its piece drawn to one scale. */
export function Jobs() {
  const { data: jobs, error } = useJobsQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: 5000,
    skipPollingIfUnfocused: true,
  });
  return (
    <Screen>
      <Bar className="pb-3">
        <h1 className="text-[20px] font-semibold">Jobs</h1>
        <span className="text-graphite text-[14px]">drawn to one scale</span>
        <span className="ml-auto flex gap-2">
          <ImportJob />
          <Link to="/jobs/new" className="action action-main">
            <Plus size={16} aria-hidden /> New job
          </Link>
        </span>
      </Bar>
      {error !== undefined && (
        <p role="alert" className="text-red">
          {problemText(error)}
        </p>
      )}
      {jobs?.length === 0 && (
        <p className="sheet p-6">
          No jobs yet. A new job begins with what you want, say a panel{' '}
          <span className="rule">40 × 16 × 1</span> in ash, and Junta plans the strips.
        </p>
      )}
      <ul className="grid grid-cols-1 gap-x-6 lg:grid-cols-2">
        {jobs?.map((job) => (
          <JobLine key={job.id} job={job} />
        ))}
      </ul>
    </Screen>
  );
}

function JobLine({ job }: { job: JobSummary }) {
  const { data } = useJobQuery(job.id);
  const display = useDisplay();
  const target = data?.build.targets[0];
  const done = data?.build.steps.filter((step) => step.done).length ?? 0;
  return (
    <li className="border-line border-t">
      <Link
        to={`/jobs/${job.id}`}
        className="hover:bg-sheet flex min-h-[132px] items-center gap-5 p-2.5 max-desk:flex-col max-desk:items-start max-desk:gap-1"
      >
        <span className="flex h-[212px] w-[330px] max-w-full shrink-0 items-center justify-center overflow-hidden max-desk:h-[150px]">
          {data && <JobPicture build={data.build} mmPerPx={SHELF_SCALE} />}
        </span>
        <span className="flex min-w-0 flex-col gap-1">
          <span className="text-[17px] leading-tight font-semibold">{job.name}</span>
          <span className="text-graphite text-[14px]">{job.use}</span>
          {target && (
            <span className="text-[15px]">
              {(['length', 'width', 'thickness'] as const).map((d, i) => (
                <span key={d}>
                  {i > 0 && ' × '}
                  {target[d].value ? <Measure value={target[d].value} display={display} /> : 'free'}
                </span>
              ))}
            </span>
          )}
          {data && <TinyStick steps={laths(data.build).at(-1)?.steps.length ?? 0} done={done} />}
        </span>
      </Link>
    </li>
  );
}

/** Where a job stands on its stick: one mark a step, dark as far as the work is done. */
function TinyStick({ steps, done }: { steps: number; done: number }) {
  return (
    <svg width={steps * 14 + 8} height="12" role="img" aria-label={`${done} of ${steps} steps done`}>
      <rect
        x="0.5"
        y="1.5"
        width={steps * 14 + 7}
        height="9"
        rx="1.5"
        fill="var(--color-lath)"
        stroke="var(--color-lath-line)"
      />
      {done > 0 && <rect x="0.5" y="1.5" width={done * 14} height="9" fill="var(--color-lath-dark)" />}
      {Array.from({ length: steps }, (_, i) => i * 14 + 8).map((x) => (
        <line key={x} x1={x} x2={x} y1="2" y2="10" stroke="#6d6046" />
      ))}
    </svg>
  );
}

/** Reads a job from a file: the reason and the place where it cannot be. */
function ImportJob() {
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
    const { readJobFile } = await import('../../contract/read');
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
