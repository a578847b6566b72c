import { problemText, useLazyRevisionQuery, useRevisionsQuery } from '../../app/api';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { Window } from '../../parts/Window';
import { VersionLine } from './VersionLine';

/** Every stored version of the job, also those that lost a conflict. Any of them can be brought back, and that undone. */
export function KeptVersions({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const id = useAppSelector(({ job }) => job.id) ?? '';
  const { data, error } = useRevisionsQuery(id);
  const [read] = useLazyRevisionQuery();
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
          <VersionLine
            key={revision.id}
            id={id}
            revision={revision}
            // One that lost a conflict was made from the version it names; the others from the one before them.
            before={data.find(
              (each) =>
                !each.aside &&
                (revision.aside ? each.version <= revision.version : each.version < revision.version),
            )}
            onBringBack={() => void bringBack(revision.id)}
          />
        ))}
      </ol>
    </Window>
  );
}
