import {
  Camera,
  BookOpen,
  Coins,
  Download,
  Ellipsis,
  Eye,
  Grid2x2,
  Hammer,
  History,
  PencilRuler,
  Keyboard,
  type LucideIcon,
  Printer,
  Trees,
  Waves,
} from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { type BuildDocument, phraseText } from '../../../core/document';
import { type ShopSnapshot, shopAlone } from '../../../core/kit';
import { useKitQuery } from '../../app/api';
import { jobActions, type Keeping } from '../../app/job';
import { useDisplay } from '../../app/display';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { differences } from '../../parts/differences';
import { DropDown } from '../../parts/DropDown';
import { lazily } from '../../parts/lazily';
import { jobFormat } from '../../../core/exchange/job';
import { saveFile } from '../../parts/save-file';
import { UndoButtons } from '../../parts/UndoButtons';
import { FindingsList } from './FindingsList';
import { useEdit, useSettle } from './use-edit';

const KeptVersions = lazily(() => import('./KeptVersions'), 'KeptVersions');
const SizesWindow = lazily(() => import('./SizesWindow'), 'SizesWindow');
const MovementWindow = lazily(() => import('./MovementWindow'), 'MovementWindow');
const KeySheet = lazily(() => import('./KeySheet'), 'KeySheet');
const NotesWindow = lazily(() => import('../notes/NotesWindow'), 'NotesWindow');
const PlanWindow = lazily(() => import('./PlanWindow'), 'PlanWindow');

const KEEPING: Record<Keeping, string> = {
  stored: 'stored',
  storing: 'storing …',
  'kept here': 'kept in this browser',
  conflict: 'changed in two places',
};

/** What of a shop changes no plan: what it is called, how it reads numbers, what it counts in and prints on. */
const NO_PLAN = [
  'name',
  'display',
  'layUps',
  'currency',
  'paper',
  'address',
] as const satisfies (keyof ShopSnapshot)[];

/** Whether a build's own kit and the shop's present one plan alike. */
const sameKit = (a: ShopSnapshot, b: ShopSnapshot): boolean => {
  const bare = (shop: ShopSnapshot) =>
    Object.fromEntries(Object.entries(shop).filter(([key]) => !(NO_PLAN as readonly string[]).includes(key)));
  return differences(bare(shopAlone(a)), bare(shopAlone(b))).length === 0;
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
  const outlook = useAppSelector(({ job }) => job.outlook);
  const past = useAppSelector(({ job }) => job.past);
  const future = useAppSelector(({ job }) => job.future);
  const display = useDisplay();
  const refused = useAppSelector(({ job }) => job.refused);
  const { data: kit } = useKitQuery();
  const [open, setOpen] = useState<
    'keys' | 'versions' | 'plan' | 'findings' | 'sizes' | 'movement' | 'notes'
  >();
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
  // At a desk each is a button with a sign; on a phone they are folded into one.
  const more: Tool[] = [
    ...(onWood || !outlook
      ? []
      : [
          {
            name: 'Movement over the year',
            icon: Waves,
            title: 'Movement: the piece through a year at its place',
            onPress: () => setOpen('movement'),
          },
          {
            name: 'Sizes that follow',
            icon: PencilRuler,
            title: 'Sizes that follow: a leg, a base, a gap',
            onPress: () => setOpen('sizes'),
          },
        ]),
    {
      name: 'Photos and notes',
      icon: Camera,
      title: 'Photos and notes of the job',
      onPress: () => setOpen('notes'),
    },
    { name: 'Kept versions', icon: History, onPress: () => setOpen('versions') },
    ...(onWood
      ? []
      : [
          {
            name: 'Sheets',
            icon: Printer,
            title: 'Sheets: one drawing to scale for each glue-up, and one of settings and cuts',
            to: `/jobs/${id}/sheets`,
          },
        ]),
    {
      name: 'Cost and price',
      icon: Coins,
      title: 'Cost and price: planned, so far, and a quotation',
      to: `/jobs/${id}/cost`,
    },
    {
      name: 'Record',
      icon: BookOpen,
      title: 'The record of the piece, and making it again',
      to: `/jobs/${id}/record`,
    },
    {
      name: 'Export',
      icon: Download,
      title: 'Export the job as a file',
      onPress: () => void saveFile(jobFormat, build.name, build),
    },
    { name: 'Keys', icon: Keyboard, title: 'Keys (?)', onPress: () => setOpen('keys') },
  ];
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
        <span className="border-line flex flex-wrap items-center gap-x-2 rounded border bg-white px-2 py-0.5 text-[13px]">
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
        <UndoButtons
          past={past.length}
          future={future.length}
          onUndo={() => dispatch(jobActions.undone())}
          onRedo={() => dispatch(jobActions.redone())}
        />
        {!onWood && build.brief && (
          <button type="button" className="action" onClick={() => setOpen('plan')}>
            <Grid2x2 size={15} aria-hidden /> Pattern
          </button>
        )}
        {!onWood && (
          <>
            <Link className="action" to={`/jobs/${id}/bench`}>
              <Hammer size={15} aria-hidden /> At the bench
            </Link>
            <Link className="action" to={`/jobs/${id}/look`}>
              <Eye size={15} aria-hidden /> Look
            </Link>
          </>
        )}
        {!onWood && (
          <Link className="action" to={`/jobs/${id}/wood`}>
            <Trees size={15} aria-hidden /> Wood
          </Link>
        )}
        {more.map((each) => (
          <MoreTool key={each.name} {...each} />
        ))}
        <MoreMenu tools={more} />
      </span>
      {open === 'keys' && <KeySheet onClose={() => setOpen(undefined)} />}
      {open === 'plan' && build.brief && (
        <PlanWindow id={id ?? ''} build={build} brief={build.brief} onClose={() => setOpen(undefined)} />
      )}
      {open === 'sizes' && outlook && (
        <SizesWindow build={build} outlook={outlook} onClose={() => setOpen(undefined)} />
      )}
      {open === 'movement' && <MovementWindow build={build} onClose={() => setOpen(undefined)} />}
      {open === 'notes' && id !== undefined && (
        <NotesWindow job={id} build={build} onClose={() => setOpen(undefined)} />
      )}
      {open === 'versions' && <KeptVersions onClose={() => setOpen(undefined)} />}
    </div>
  );
}

/** Something that the head of a job offers by a sign alone: a thing to do, or a place to go. */
interface Tool {
  name: string;
  icon: LucideIcon;
  title?: string;
  onPress?: () => void;
  to?: string;
}

function MoreTool({ name, icon: Icon, title = name, onPress, to }: Tool) {
  const common = { className: 'action px-2 max-desk:hidden', 'aria-label': name, title };
  return to ? (
    <Link {...common} to={to}>
      <Icon size={16} />
    </Link>
  ) : (
    <button type="button" {...common} onClick={onPress}>
      <Icon size={16} />
    </button>
  );
}

function MoreMenu({ tools }: { tools: readonly Tool[] }) {
  const row = 'hover:bg-chalk-wash flex min-h-11 items-center gap-3 rounded px-3 text-left text-[16px]';
  return (
    <DropDown
      label="More"
      named="More"
      className="action desk:hidden px-2"
      panel="p-1"
      button={<Ellipsis size={18} />}
    >
      {(close) =>
        tools.map(({ name, icon: Icon, onPress, to }) =>
          to ? (
            <Link key={name} className={row} to={to}>
              <Icon size={18} aria-hidden /> {name}
            </Link>
          ) : (
            <button
              key={name}
              type="button"
              className={row}
              onClick={() => {
                close();
                onPress?.();
              }}
            >
              <Icon size={18} aria-hidden /> {name}
            </button>
          ),
        )
      }
    </DropDown>
  );
}
