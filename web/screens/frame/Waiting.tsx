import { counted } from '../../../core/units/words';
import { useReach, useUnsent } from '../../app/outbox-view';
import { DropDown } from '../../parts/DropDown';
import { lazily } from '../../parts/lazily';
import type { Draft } from '../../app/drafts';

// Most of the time nothing waits: what is said of it then comes when it is asked for.
const NotStored = lazily(() => import('./NotStored'), 'NotStored');
const DraftConflict = lazily(() => import('./NotStored'), 'DraftConflict');

const count = (drafts: readonly Draft[]) => counted(drafts.length, 'change');

/**
 * What the head of every page says of the server and of what waits for it: that it is away and what is kept here, and
 * what of it needs a word of the maker. Conflicts of the kit, of boards and of notes are put before the maker at once.
 */
export function Waiting() {
  const { away } = useReach();
  const drafts = useUnsent();
  const trouble = drafts.filter(({ state }) => state !== 'waiting');
  const asked = drafts.find(({ kind, state }) => kind !== 'job' && state === 'conflict');
  return (
    <>
      {away !== undefined && (
        <span role="alert" className="text-red" data-testid="away">
          {away}
          {drafts.length > 0 &&
            ` ${count(drafts)} ${drafts.length === 1 ? 'is' : 'are'} kept in this browser.`}
        </span>
      )}
      {(away !== undefined ? drafts : trouble).length > 0 && (
        <DropDown
          label="Changes that wait for the server"
          className={`action h-7 ${trouble.length > 0 ? 'text-red border-red' : ''}`}
          panel="w-96 p-4"
          testId="unsent"
          button={trouble.length > 0 ? `${count(trouble)} to look at` : `${drafts.length} kept here`}
        >
          {() => <NotStored drafts={drafts} />}
        </DropDown>
      )}
      {asked && <DraftConflict draft={asked} />}
    </>
  );
}
