import { nameWindow } from '../../app/title';
import { type ReactNode, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { BuildDocument } from '../../../core/document';
import { problemText } from '../../app/api';
import { jobActions } from '../../app/job';
import '../../app/open-job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { openJob } from '../../app/storing';
import { lazily } from '../../parts/lazily';

const ConflictWindow = lazily(() => import('./ConflictWindow'), 'ConflictWindow');

/**
 * Opens the job that the address names and shows it, with what stands in the way of it: that it cannot be read, or
 * that it was changed in two places. Undo goes on between the screens of one job; it ends when the job is left.
 */
export function OpenJob({
  title,
  children,
}: {
  title: (name: string) => string;
  children: (id: string, build: BuildDocument) => ReactNode;
}) {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const build = useAppSelector(({ job }) => job.build);
  const openId = useAppSelector(({ job }) => job.id);
  const conflict = useAppSelector(({ job }) => job.conflict);
  const [error, setError] = useState<unknown>();
  useEffect(() => {
    setError(undefined);
    void openJob(id).then(setError);
    return () => void (location.pathname.startsWith(`/jobs/${id}`) || dispatch(jobActions.closed()));
  }, [id, dispatch]);
  useEffect(() => {
    if (build) nameWindow(title(build.name));
  }, [build, title]);
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
  return (
    <>
      {children(id, build)}
      {conflict && <ConflictWindow conflict={conflict} />}
    </>
  );
}
