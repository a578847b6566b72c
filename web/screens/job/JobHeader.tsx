import { Download, Eye, Grid2x2, History, Keyboard, Printer, Redo2, Trees, Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { type BuildDocument, phraseText } from '../../../core/document';
import type { ShopSnapshot } from '../../../core/kit';
import { useKitQuery } from '../../app/api';
import { jobActions, type Keeping } from '../../app/job';
import { useDisplay } from '../../app/display';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { differences } from '../../parts/differences';
import { jobFormat } from '../../../core/exchange/job';
import { saveFile } from '../../parts/save-file';
import { FindingsList } from './FindingsList';
import { KeptVersions } from './KeptVersions';
import { KeySheet } from './KeySheet';
import { PlanWindow } from './PlanWindow';
import { useEdit, useSettle } from './use-edit';

const KEEPING: Record<Keeping, string> = {
  stored: 'stored',
  storing: 'storing …',
  'kept here': 'kept in this browser',
  conflict: 'changed in two places',
};

/** What a build's own kit and the shop's present one do not share, leaving out how numbers are read and lay-ups kept. */
const sameKit = (a: ShopSnapshot, b: ShopSnapshot): boolean => {
  const bare = ({ display: _d, name: _n, layUps: _l, ...rest }: ShopSnapshot) => rest;
  return differences(bare(a), bare(b)).length === 0;
};

/** Whether a key pressed there writes something, or belongs to a window that is open. */
const isTyped = (target: HTMLElement): boolean =>
  target.isContentEditable ||
  ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
  target.closest('[role="dialog"]') !== null;

/** The job's name, how well it is kept, undo and redo, and its files and versions. */
export function JobHeader({ build }: { build: BuildDocument }) {
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const settle = useSettle();
  const id = useAppSelector(({ job }) => job.id);
  const onWood = useLocation().pathname.endsWith('/wood');
  const keeping = useAppSelector(({ job }) => job.keeping);
  const past = useAppSelector(({ job }) => job.past);
  const future = useAppSelector(({ job }) => job.future);
  const display = useDisplay();
  const refused = useAppSelector(({ job }) => job.refused);
  const { data: kit } = useKitQuery();
  const [open, setOpen] = useState<'keys' | 'versions' | 'plan' | 'findings'>();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const inText =
        target instanceof HTMLInputElement && target.type !== 'checkbox' && target.type !== 'radio';
      if (
        (event.ctrlKey || event.metaKey) &&
        !event.altKey &&
        !(inText && target.dataset.dirty !== undefined)
      ) {
        const key = event.key.toLowerCase();
        const action =
          key === 'z'
            ? event.shiftKey
              ? jobActions.redone()
              : jobActions.undone()
            : key === 'y'
              ? jobActions.redone()
              : undefined;
        if (!action) return;
        event.preventDefault();
        dispatch(action);
      } else if (event.key === '?' && !inText) setOpen('keys');
      else if (event.key.toLowerCase() === 'f' && !isTyped(target) && !event.altKey) setOpen('findings');
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [dispatch]);
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-2">
      <h1 className="sr-only" tabIndex={-1}>
        {build.name}
      </h1>
      <input
        aria-label="Name of the job"
        value={build.name}
        maxLength={120}
        onBlur={settle}
        className="hover:border-line focus:border-chalk -ml-1.5 max-w-[min(420px,100%)] min-w-[120px] [field-sizing:content] rounded border border-transparent bg-transparent px-1.5 text-[20px] font-semibold"
        onChange={(event) =>
          event.target.value.trim() && edit({ do: 'rename', name: event.target.value }, 'name')
        }
      />
      <span className="text-graphite min-w-0 truncate text-[14px]">{build.use}</span>
      {kit && !sameKit(kit.shop, build.shop) && (
        <span className="border-line flex items-center gap-2 rounded border bg-white px-2 py-0.5 text-[13px] whitespace-nowrap">
          Planned with an earlier kit
          <button
            type="button"
            className="text-chalk font-medium underline"
            onClick={() => edit({ do: 'useShop', shop: { ...kit.shop, display: build.shop.display } })}
          >
            Use the present one
          </button>
        </span>
      )}
      {refused && (
        <span role="alert" className="text-red text-[13.5px]">
          {phraseText(refused, display)}
        </span>
      )}
      <span className="ml-auto flex flex-wrap items-center gap-1.5 max-desk:ml-0">
        <span
          role="status"
          data-testid="keeping"
          className={`text-[13px] whitespace-nowrap ${keeping === 'stored' || keeping === 'storing' ? 'text-graphite' : 'text-red font-medium'}`}
        >
          {KEEPING[keeping]}
        </span>
        {!onWood && (
          <FindingsList
            build={build}
            open={open === 'findings'}
            onOpen={() => setOpen('findings')}
            onClose={() => setOpen(undefined)}
          />
        )}
        <button
          type="button"
          className="action px-2"
          aria-label="Undo"
          title="Undo (Ctrl Z)"
          disabled={past.length === 0}
          onClick={() => dispatch(jobActions.undone())}
        >
          <Undo2 size={16} />
        </button>
        <button
          type="button"
          className="action px-2"
          aria-label="Redo"
          title="Redo (Ctrl Shift Z)"
          disabled={future.length === 0}
          onClick={() => dispatch(jobActions.redone())}
        >
          <Redo2 size={16} />
        </button>
        <button
          type="button"
          className="action px-2"
          aria-label="Kept versions"
          title="Kept versions"
          onClick={() => setOpen('versions')}
        >
          <History size={16} />
        </button>
        {!onWood && build.brief && (
          <button type="button" className="action" onClick={() => setOpen('plan')}>
            <Grid2x2 size={15} aria-hidden /> Pattern
          </button>
        )}
        {!onWood && (
          <>
            <Link className="action" to={`/jobs/${id}/look`}>
              <Eye size={15} aria-hidden /> Look
            </Link>
            <Link
              className="action px-2"
              to={`/jobs/${id}/sheets`}
              aria-label="Sheets"
              title="Sheets: one drawing to scale for each glue-up"
            >
              <Printer size={16} />
            </Link>
          </>
        )}
        {!onWood && (
          <Link className="action" to={`/jobs/${id}/wood`}>
            <Trees size={15} aria-hidden /> Wood
          </Link>
        )}
        <button
          type="button"
          className="action px-2"
          aria-label="Export"
          title="Export the job as a file"
          onClick={() => saveFile(jobFormat, build.name, build)}
        >
          <Download size={16} />
        </button>
        <button
          type="button"
          className="action px-2"
          aria-label="Keys"
          title="Keys (?)"
          onClick={() => setOpen('keys')}
        >
          <Keyboard size={16} />
        </button>
      </span>
      <KeySheet open={open === 'keys'} onClose={() => setOpen(undefined)} />
      {open === 'plan' && build.brief && (
        <PlanWindow id={id ?? ''} build={build} brief={build.brief} onClose={() => setOpen(undefined)} />
      )}
      {open === 'versions' && <KeptVersions onClose={() => setOpen(undefined)} />}
    </div>
  );
}
