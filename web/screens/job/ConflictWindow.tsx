import { useMemo } from 'react';
import type { BuildDocument } from '../../../core/document';
import { type Conflict, jobActions } from '../../app/job';
import { useAppDispatch } from '../../app/store';
import { JobPicture } from '../../drawing/JobPicture';
import { TwoVersions } from '../../parts/TwoVersions';
import { differences } from '../../parts/differences';

/** One job changed in two places from the same version: both shown, one chosen, the other kept. */
export function ConflictWindow({ conflict }: { conflict: Conflict }) {
  const dispatch = useAppDispatch();
  const { mine, theirs } = conflict;
  const list = useMemo(() => differences(theirs.build, mine), [theirs, mine]);
  return (
    <TwoVersions
      description="This job was changed here and somewhere else, both from the same version. Choose which one to go on with; the other stays among the kept versions."
      differences={list}
      mine={{
        title: 'Made here',
        action: 'Go on with mine',
        onChoose: () => dispatch(jobActions.conflictSettled('mine')),
        children: <Shown build={mine} />,
      }}
      theirs={{
        title: 'Stored first, made elsewhere',
        action: 'Go on with the other',
        onChoose: () => dispatch(jobActions.conflictSettled('theirs')),
        children: <Shown build={theirs.build} />,
      }}
    />
  );
}

function Shown({ build }: { build: BuildDocument }) {
  return (
    <>
      <div className="h-40">
        <JobPicture build={build} />
      </div>
      <p className="text-[14px]">{build.name}</p>
    </>
  );
}
