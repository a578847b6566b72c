import { useEffect, useRef, useState } from 'react';
import type { RevisionSummary } from '../../../contract/api';
import { phraseText } from '../../../core/document';
import { changesBetween } from '../../../core/view/changes';
import { counted } from '../../../core/units';
import { useMarkRevisionMutation, useRevisionQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { JobPicture } from '../../drawing/JobPicture';
import { Tick } from '../../parts/Tick';

/** Changes that are said at once; the others when the version is opened. */
const FIRST = 3;

/** One kept version: what was changed in it since the one before, and both pieces side by side where it is opened. */
export function VersionLine({
  id,
  revision,
  before,
  onBringBack,
}: {
  id: string;
  revision: RevisionSummary;
  /** The version it was made from; the first has none. */
  before: RevisionSummary | undefined;
  onBringBack: () => void;
}) {
  const display = useDisplay();
  const box = useRef<HTMLLIElement>(null);
  const [seen, setSeen] = useState(false);
  const [open, setOpen] = useState(false);
  const [mark] = useMarkRevisionMutation();
  useEffect(() => {
    if (!box.current || seen) return;
    // A version out of sight is not fetched: there may be hundreds.
    const sight = new IntersectionObserver(([entry]) => entry.isIntersecting && setSeen(true));
    sight.observe(box.current);
    return () => sight.disconnect();
  }, [seen]);
  const isRead = seen && !revision.damaged;
  const { data: build } = useRevisionQuery({ id, revision: revision.id }, { skip: !isRead });
  const { data: old } = useRevisionQuery(
    { id, revision: before?.id ?? '' },
    { skip: !isRead || !before || before.damaged === true },
  );
  const changes = build && old ? changesBetween(old, build) : undefined;
  const shown = open ? changes : changes?.slice(0, FIRST);
  return (
    <li ref={box} className="border-line border-b border-dotted py-2" data-version={revision.version}>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="rule w-9 text-right">{revision.version}</span>
        <time className="text-graphite rule text-[13px] font-medium" dateTime={revision.made}>
          {new Date(revision.made).toLocaleString('en', { dateStyle: 'medium', timeStyle: 'short' })}
        </time>
        {revision.by && <span className="text-graphite text-[13px]">{revision.by}</span>}
        {revision.aside && <span className="text-red text-[13px]">put aside in a conflict</span>}
        {revision.damaged && <span className="text-red">damaged: it cannot be read</span>}
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <Tick
            label="keep"
            checked={revision.marked}
            onChange={(marked) => void mark({ id, revision: revision.id, marked })}
          />
          <button
            type="button"
            className="action"
            aria-expanded={open}
            disabled={!build}
            onClick={() => setOpen(!open)}
          >
            {open ? 'Close' : 'Look'}
          </button>
          <button type="button" className="action" disabled={revision.damaged} onClick={onBringBack}>
            Bring back
          </button>
        </span>
      </div>
      <div className="pl-12 max-desk:pl-2">
        {!before && !revision.damaged && (
          <p className="text-graphite text-[14px]">the first that is kept, “{revision.name}”</p>
        )}
        {changes?.length === 0 && <p className="text-graphite text-[14px]">the same work as before</p>}
        <ul className="text-[14px]" aria-label={`Changed in version ${revision.version}`}>
          {shown?.map((line, i) => (
            <li key={i} className="first-letter:uppercase">
              {phraseText(line, display)}
            </li>
          ))}
        </ul>
        {!open && changes && changes.length > FIRST && (
          <p className="text-graphite text-[14px]">and {counted(changes.length - FIRST, 'more change')}</p>
        )}
        {open && (
          <div className="flex flex-wrap gap-4 pt-2">
            {old && before && <Piece build={old} words={`before, version ${before.version}`} />}
            {build && <Piece build={build} words={`version ${revision.version}`} />}
          </div>
        )}
      </div>
    </li>
  );
}

function Piece({ build, words }: { build: Parameters<typeof JobPicture>[0]['build']; words: string }) {
  return (
    <figure className="w-[290px] max-w-full">
      <div className="bg-paper flex h-[150px] p-2">
        <JobPicture build={build} />
      </div>
      <figcaption className="text-graphite pt-0.5 text-[13px]">{words}</figcaption>
    </figure>
  );
}
