import { problemText, useDeletedJobsQuery, usePlaceJobMutation } from '../../app/api';
import { Window } from '../../parts/Window';

const day = (iso: string) => new Date(iso).toLocaleDateString('en', { day: 'numeric', month: 'long' });

/** Jobs that were deleted in the last 30 days. */
export function DeletedJobs({ onClose }: { onClose: () => void }) {
  const { data, error } = useDeletedJobsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [place, { error: refused }] = usePlaceJobMutation();
  const problem = error ?? refused;
  return (
    <Window
      title="Deleted jobs"
      wide
      open
      description="A deleted job stays here for 30 days. Brought back, it has everything but the boards that were reserved for it: they went back to the rack."
      onClose={onClose}
    >
      {problem !== undefined && (
        <p role="alert" className="text-red">
          {problemText(problem)}
        </p>
      )}
      {data?.length === 0 && <p>Nothing was deleted in the last 30 days.</p>}
      <ul>
        {data?.map((job) => (
          <li key={job.id} className="border-line flex items-center gap-3 border-t border-dotted py-1.5">
            <span className="min-w-0 flex-1 truncate">{job.name}</span>
            <span className="text-graphite text-[14px] max-desk:hidden">deleted {day(job.deleted)}</span>
            <span className="text-graphite text-[14px]">until {day(job.until)}</span>
            <button
              type="button"
              className="action"
              aria-label={`Bring back ${job.name}`}
              onClick={() => void place({ id: job.id, deleted: false })}
            >
              Bring back
            </button>
          </li>
        ))}
      </ul>
    </Window>
  );
}
