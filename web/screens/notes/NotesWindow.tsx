import type { BuildDocument } from '../../../core/document';
import { Window } from '../../parts/Window';
import { Notes } from './Notes';

/** All photos and notes of a job, whichever step they were taken at. */
export function NotesWindow({
  job,
  build,
  onClose,
}: {
  job: string;
  build: BuildDocument;
  onClose: () => void;
}) {
  return (
    <Window
      open
      wide
      title="Photos and notes"
      description="Of the whole job, with the step each was taken at. They lie beside the job: undo does not reach them, and they are in no exported file."
      onClose={onClose}
    >
      <Notes place={{ job }} build={build} heading={false} />
    </Window>
  );
}
