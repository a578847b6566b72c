import { Plus } from 'lucide-react';
import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import type { BuildDocument } from '../../../core/document';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { Bench } from './Bench';
import { Card } from './Card';
import { JobHeader } from './JobHeader';
import { OpenJob } from './OpenJob';
import { Stick } from './Stick';
import { lazily } from '../../parts/lazily';
import { FullScreen, Skips } from '../../parts/layout';
import { Working } from '../../parts/Working';

const StepMenu = lazily(() => import('./chain/StepMenu'), 'StepMenu');

const SKIPS = [
  ['stick', 'To the stick'],
  ['bench', 'To the bench'],
  ['card', 'To the card'],
] as const;

const title = (name: string) => name;

/** A job: the stick, the bench and the card. */
export const JobScreen = () => <OpenJob title={title}>{(_id, build) => <Job build={build} />}</OpenJob>;

/** A link to a step of a job brings that step to the bench, once. */
function useStepAsked(build: BuildDocument): void {
  const [params, setParams] = useSearchParams();
  const dispatch = useAppDispatch();
  const asked = params.get('step');
  const known = build.steps.some(({ id }) => id === asked);
  useEffect(() => {
    if (asked === null) return;
    if (known) dispatch(jobActions.stepChosen(asked));
    setParams(
      (now) => {
        now.delete('step');
        return now;
      },
      { replace: true },
    );
  }, [asked, known, dispatch, setParams]);
}

function Job({ build }: { build: BuildDocument }) {
  useStepAsked(build);
  const outlook = useAppSelector(({ job }) => job.outlook);
  const chosen = useAppSelector(({ job }) => job.step);
  const adding = useAppSelector(({ job }) => job.adding !== undefined);
  const step =
    build.steps.find((candidate) => candidate.id === chosen) ?? build.steps[build.steps.length - 1];
  return (
    <FullScreen className="min-h-[560px] max-desk:pb-20">
      <Skips label="Within the job" to={SKIPS} />
      <JobHeader build={build} />
      {adding && <StepMenu build={build} />}
      {outlook ? <Stick build={build} outlook={outlook} chosen={step?.id} /> : <div className="h-40" />}
      <div className="flex min-h-0 flex-1 gap-4 max-lg:portrait:flex-col max-desk:flex-col">
        {outlook && step ? (
          <>
            <Bench build={build} outlook={outlook} step={step} />
            <Card build={build} outlook={outlook} step={step} />
          </>
        ) : build.steps.length === 0 ? (
          <Empty />
        ) : (
          <Working className="p-6">Predicting …</Working>
        )}
      </div>
    </FullScreen>
  );
}

/** A job without a step: what a chain begins with. */
function Empty() {
  const dispatch = useAppDispatch();
  return (
    <section aria-label="Bench" className="sheet flex flex-1 flex-col items-start gap-3 p-8">
      <h2 className="text-[18px] font-semibold">Nothing is done in this job yet</h2>
      <p className="text-graphite max-w-[60ch]">
        Begin with strips from boards, or with a board, blank or slab that is there already. Then add steps
        one after the other: each shows what it would do before it is put in.
      </p>
      <button
        type="button"
        className="action action-main"
        onClick={() => dispatch(jobActions.addingAt('line'))}
      >
        <Plus size={15} aria-hidden /> Begin a line
      </button>
    </section>
  );
}
