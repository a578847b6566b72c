import { useMemo } from 'react';
import type { BuildDocument } from '../../../core/build';
import { jobActions, type Conflict } from '../../app/job';
import { useAppDispatch } from '../../app/store';
import { Window } from '../../parts/Window';
import { JobPicture } from '../../drawing/JobPicture';
import { differences } from './differences';

/** One job changed in two places from the same version: both shown, one chosen, the other kept. */
export function ConflictWindow({ conflict }: { conflict: Conflict }) {
  const dispatch = useAppDispatch();
  const list = useMemo(() => differences(conflict.theirs.build, conflict.mine), [conflict]);
  return (
    <Window
      title="Changed in two places"
      open
      stay
      wide
      onClose={() => {}}
      description="This job was changed here and somewhere else, both from the same version. Choose which one to go on with; the other stays among the kept versions."
    >
      <div className="grid grid-cols-2 gap-4">
        <Side
          title="Made here"
          build={conflict.mine}
          action="Go on with mine"
          onChoose={() => dispatch(jobActions.conflictSettled('mine'))}
        />
        <Side
          title="Stored first, made elsewhere"
          build={conflict.theirs.build}
          action="Go on with the other"
          onChoose={() => dispatch(jobActions.conflictSettled('theirs'))}
        />
      </div>
      <h3 className="label pt-4 pb-1">Where they differ</h3>
      <ul className="rule flex flex-col text-[14px] font-medium">
        {list.slice(0, 12).map(({ path, there, here }) => (
          <li key={path}>
            {path}: <span className="text-graphite">{there}</span> elsewhere,{' '}
            <span className="text-chalk">{here}</span> here
          </li>
        ))}
        {list.length > 12 && <li className="text-graphite">and {list.length - 12} more</li>}
      </ul>
    </Window>
  );
}

function Side({
  title,
  build,
  action,
  onChoose,
}: {
  title: string;
  build: BuildDocument;
  action: string;
  onChoose: () => void;
}) {
  return (
    <section className="border-line flex flex-col gap-2 rounded border p-3">
      <h3 className="font-semibold">{title}</h3>
      <div className="h-40">
        <JobPicture build={build} />
      </div>
      <p className="text-[14px]">{build.name}</p>
      <button type="button" className="action action-main self-start" onClick={onChoose}>
        {action}
      </button>
    </section>
  );
}
