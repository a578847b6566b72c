import { useMemo } from 'react';
import { Link, useLocation } from 'react-router';
import type { BuildDocument } from '../../../core/document';
import { draftFormat, jobFormat } from '../../../core/exchange/job';
import type { NoteContent } from '../../../core/notes';
import { api } from '../../app/api';
import type { Draft } from '../../app/drafts';
import { sendAgain, settleConflict, standing, throwAway } from '../../app/outbox';
import type { SentPhoto } from '../../app/sending';
import { store } from '../../app/store';
import { differences } from '../../parts/differences';
import { saveBlob, saveFile } from '../../parts/save-file';
import { TwoVersions } from '../../parts/TwoVersions';

const STATE: Record<Draft['state'], string> = {
  waiting: 'waits for the server',
  conflict: 'changed in two places',
  refused: 'not taken by the server',
};

const TAG: Record<Draft['kind'], 'Jobs' | 'Kit' | 'Boards' | 'Notes'> = {
  job: 'Jobs',
  kit: 'Kit',
  board: 'Boards',
  note: 'Notes',
  photo: 'Notes',
};

const refresh = (draft: Draft) => void store.dispatch(api.util.invalidateTags([TAG[draft.kind]]));

/** Settles a conflict of the kit, a board or a note; the chosen side is read anew. */
const settle = (draft: Draft, side: 'mine' | 'theirs') =>
  void settleConflict(draft, side).then(() => refresh(draft));

/** Saves what was not taken as a file: a job as a job's, a photo as the photo it is, all else as what it holds. */
function saveDraft({ kind, name, content }: Draft): void {
  if (kind === 'photo') {
    const { type, bytes } = content as SentPhoto;
    saveBlob(name, type.replace('image/', ''), new Blob([bytes], { type }));
  } else saveFile(kind === 'job' ? jobFormat : draftFormat, name, content as BuildDocument);
}

/** The job that a change belongs to. */
const jobOf = ({ kind, subject, content }: Draft): string =>
  kind === 'note' ? ((content as NoteContent).job ?? '') : subject;

/** Brings back the deleted job that a change belongs to. */
const bringBack = async (id: string): Promise<void> =>
  void (await store.dispatch(api.endpoints.placeJob.initiate({ id, deleted: false })));

/** What is not stored yet, each with what can be done about it. */
export const NotStored = ({ drafts }: { drafts: readonly Draft[] }) => (
  <>
    <h2 className="pb-1 font-semibold">Not stored yet</h2>
    <ul className="flex flex-col">
      {drafts.map((draft) => (
        <WaitingLine key={draft.key} draft={draft} />
      ))}
    </ul>
  </>
);

function WaitingLine({ draft }: { draft: Draft }) {
  const { pathname } = useLocation();
  const { kind, subject, name, state, reason } = draft;
  const address = `/jobs/${subject}`;
  return (
    <li className="border-line flex flex-col gap-1 border-b border-dotted py-2 text-[14px]">
      <span className="font-medium">{name}</span>
      <span className={state === 'waiting' ? 'text-graphite' : 'text-red'}>
        {STATE[state]}
        {state === 'refused' && reason ? `: ${reason}` : ''}
      </span>
      <span className="flex flex-wrap gap-2">
        {kind === 'job' && !pathname.startsWith(address) && (
          <Link className="action" to={address}>
            Open
          </Link>
        )}
        {state === 'refused' && (
          <>
            <button
              type="button"
              className="action"
              onClick={() =>
                void (draft.deleted ? bringBack(jobOf(draft)) : Promise.resolve()).then(() =>
                  sendAgain(draft),
                )
              }
            >
              {draft.deleted ? 'Bring the job back and send it' : 'Send again'}
            </button>
            <button type="button" className="action" onClick={() => saveDraft(draft)}>
              Save as a file
            </button>
            <button
              type="button"
              className="action"
              onClick={() => void throwAway(draft).then(() => refresh(draft))}
            >
              Throw away
            </button>
          </>
        )}
      </span>
    </li>
  );
}

/** The kit, a board or a note, changed here and elsewhere. */
export function DraftConflict({ draft }: { draft: Draft }) {
  const there = standing(draft)?.content;
  const list = useMemo(() => differences(there, draft.content), [there, draft.content]);
  const what = draft.name.charAt(0).toUpperCase() + draft.name.slice(1);
  return (
    <TwoVersions
      description={`${what} was changed here and somewhere else, both from the same version. Choose which one to go on with. The other one is not kept.`}
      differences={list}
      mine={{ title: 'Made here', action: 'Go on with mine', onChoose: () => settle(draft, 'mine') }}
      theirs={{
        title: 'Stored first, made elsewhere',
        action: 'Go on with the other',
        onChoose: () => settle(draft, 'theirs'),
      }}
    />
  );
}
