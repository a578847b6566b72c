import '../../app/open-job';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { problemText } from '../../app/api';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { openJob } from '../../app/storing';
import { Bench } from './Bench';
import { Card } from './Card';
import { ConflictWindow } from './ConflictWindow';
import { JobHeader } from './JobHeader';
import { Stick } from './Stick';

/** A job: the stick, the bench and the card. */
export function JobScreen() {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const build = useAppSelector(({ job }) => job.build);
  const outlook = useAppSelector(({ job }) => job.outlook);
  const chosen = useAppSelector(({ job }) => job.step);
  const conflict = useAppSelector(({ job }) => job.conflict);
  const openId = useAppSelector(({ job }) => job.id);
  const [error, setError] = useState<unknown>();
  useEffect(() => {
    setError(undefined);
    void openJob(id).then(setError);
    // Undo goes on between the screens of one job; it ends when the job is left.
    return () => void (location.pathname.startsWith(`/jobs/${id}`) || dispatch(jobActions.closed()));
  }, [id, dispatch]);
  useEffect(() => {
    if (build) document.title = `${build.name} · Junta`;
  }, [build]);
  if (error)
    return (
      <p role="alert" className="p-8">
        {problemText(error)}{' '}
        <Link className="text-chalk underline" to="/jobs">
          All jobs
        </Link>
      </p>
    );
  if (!build || openId !== id) return <p className="text-graphite p-8">Opening the job …</p>;
  const step =
    build.steps.find((candidate) => candidate.id === chosen) ?? build.steps[build.steps.length - 1];
  return (
    <main className="flex h-[calc(100dvh-44px)] min-h-[560px] flex-col gap-2.5 px-5 pt-2.5 pb-4">
      <JobHeader build={build} />
      {outlook ? <Stick build={build} outlook={outlook} chosen={step?.id} /> : <div className="h-40" />}
      <div className="flex min-h-0 flex-1 gap-4">
        {outlook && step ? (
          <>
            <Bench build={build} outlook={outlook} step={step} />
            <Card build={build} outlook={outlook} step={step} />
          </>
        ) : (
          <p className="text-graphite p-6">Predicting …</p>
        )}
      </div>
      {conflict && <ConflictWindow conflict={conflict} />}
    </main>
  );
}
