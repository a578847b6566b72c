import { problemText, useLazyRevisionQuery, useMarkRevisionMutation, useRevisionsQuery } from '../../app/api';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { Tick } from '../../parts/Tick';
import { Window } from '../../parts/Window';

/** Every stored version of the job, also those that lost a conflict. Any of them can be brought back, and that undone. */
export function KeptVersions({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const id = useAppSelector(({ job }) => job.id) ?? '';
  const { data, error } = useRevisionsQuery(id);
  const [read] = useLazyRevisionQuery();
  const [mark] = useMarkRevisionMutation();
  const bringBack = async (revision: string) => {
    const { data: build } = await read({ id, revision });
    if (!build) return;
    dispatch(jobActions.broughtBack(build));
    onClose();
  };
  return (
    <Window
      title="Kept versions"
      wide
      description="What was stored, the newest first: everything of the last day, then the last of each hour for 30 days, then the last of each day. Those marked “keep” stay."
      open
      onClose={onClose}
    >
      {error && (
        <p role="alert" className="text-red">
          {problemText(error)}
        </p>
      )}
      <ol className="flex flex-col">
        {data?.map((revision) => (
          <li key={revision.id} className="border-line flex items-center gap-3 border-b border-dotted py-1.5">
            <span className="rule w-9 text-right">{revision.version}</span>
            <span className="min-w-0 flex-1 truncate">
              {revision.damaged ? (
                <span className="text-red">damaged: it cannot be read</span>
              ) : (
                revision.name
              )}
              {revision.aside && <span className="text-red ml-2 text-[13px]">put aside in a conflict</span>}
            </span>
            {revision.by && <span className="text-graphite text-[13px]">{revision.by}</span>}
            <time className="text-graphite rule text-[13px] font-medium" dateTime={revision.made}>
              {new Date(revision.made).toLocaleString()}
            </time>
            <Tick
              label="keep"
              checked={revision.marked}
              onChange={(marked) => void mark({ id, revision: revision.id, marked })}
            />
            <button
              type="button"
              className="action"
              disabled={revision.damaged}
              onClick={() => void bringBack(revision.id)}
            >
              Bring back
            </button>
          </li>
        ))}
      </ol>
    </Window>
  );
}
