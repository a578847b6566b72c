import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { type BuildDocument, phraseText } from '../../../../core/document';
import { stepTitle } from '../../../../core/steps';
import { lengthText } from '../../../../core/units';
import type { ChainMenu, ChainPlace, LyingPiece, MenuLine } from '../../../../core/view';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { stepsAt } from '../../../app/predicting';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { Window } from '../../../parts/Window';
import { useEdit } from '../use-edit';
import { NewLine } from './NewLine';
import { Working } from '../../../parts/Working';

/** The menu of steps, wherever on the stick it was asked for. */
export function StepMenu({ build }: { build: BuildDocument }) {
  const adding = useAppSelector(({ job }) => job.adding);
  if (adding === undefined) return null;
  if (adding === 'line') return <NewLine build={build} />;
  return <PlaceMenu key={`${adding.after} ${adding.before ?? ''}`} build={build} place={adding} />;
}

/** Arrow keys go from line to line; Home and End to the first and the last. */
function onArrows(event: KeyboardEvent<HTMLElement>): void {
  const lines = [...event.currentTarget.querySelectorAll<HTMLButtonElement>('[data-line]')];
  const at = lines.indexOf(document.activeElement as HTMLButtonElement);
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: lines.length - 1 }[event.key];
  if (to === undefined || at < 0) return;
  event.preventDefault();
  lines[Math.min(lines.length - 1, Math.max(0, to))]?.focus();
}

function PlaceMenu({ build, place }: { build: BuildDocument; place: ChainPlace }) {
  const dispatch = useAppDispatch();
  const edit = useEdit();
  const [only, setOnly] = useState<string[]>();
  const [found, setFound] = useState<{ only: string[] | undefined; menu: ChainMenu }>();
  const [failed, setFailed] = useState('');
  useEffect(() => {
    let gone = false;
    stepsAt(build, only ? { after: place.after, only } : place)
      .then((menu) => !gone && setFound({ only, menu }))
      .catch((error: Error) => !gone && setFailed(error.message));
    return () => void (gone = true);
  }, [build, place, only]);
  const menu = found?.menu;
  // Figures of other pieces than those now chosen stand there until the new ones are played; they put nothing in.
  const fresh = found?.only === only;
  const list = useRef<HTMLDivElement>(null);
  const ready = menu !== undefined;
  useEffect(() => {
    if (ready) list.current?.querySelector<HTMLElement>('[data-line]')?.focus();
  }, [ready]);
  const close = () => dispatch(jobActions.addingAt(undefined));
  const title = (id: string) => {
    const step = build.steps.find((each) => each.id === id);
    return step ? stepTitle(build, step) : '';
  };
  const groups = [...new Set(menu?.lines.map(({ group }) => group))];
  return (
    <Window
      title={`Add a step after ${title(place.after)}${place.before ? `, before ${title(place.before)}` : ''}`}
      open
      onClose={close}
      wide
    >
      {failed && (
        <p role="alert" className="text-red">
          This could not be played: {failed}
        </p>
      )}
      {!menu && !failed && <Working>Playing each step on what lies there …</Working>}
      {menu && menu.lies.length > 1 && <WhichPieces lies={menu.lies} only={only} onChange={setOnly} />}
      {menu && (
        <div ref={list} onKeyDown={onArrows}>
          {groups.map((group) => (
            <section key={group} aria-label={group} className="pt-2">
              <h3 className="label">{group}</h3>
              <ul>
                {menu.lines
                  .filter((line) => line.group === group)
                  .map((line) => (
                    <Line
                      key={line.kind}
                      line={line}
                      fresh={fresh}
                      onPut={() => {
                        if (line.edit) edit(line.edit);
                        close();
                      }}
                    />
                  ))}
              </ul>
            </section>
          ))}
        </div>
      )}
      <p className="border-line text-graphite mt-3 border-t pt-3 text-[14px]">
        Other wood for this job:{' '}
        <button
          type="button"
          className="text-chalk font-medium underline"
          onClick={() => dispatch(jobActions.addingAt('line'))}
        >
          begin a line of its own
        </button>{' '}
        with strips or with a piece that is there already, and lay it into a glue-up.
      </p>
    </Window>
  );
}

/** One kind of step: its name, what it does, and what it would do here in figures. */
function Line({ line, fresh, onPut }: { line: MenuLine; fresh: boolean; onPut: () => void }) {
  const display = useDisplay();
  const words = phraseText(line.words, display);
  if (!line.edit)
    return (
      <li className="text-graphite grid grid-cols-[9.5rem_1fr] gap-x-3 rounded px-2 py-1.5 text-[14px]">
        <span className="font-medium">{line.name}</span>
        <span>Not here: {words}</span>
      </li>
    );
  return (
    <li>
      <button
        type="button"
        data-line={line.kind}
        disabled={!fresh}
        onClick={onPut}
        className="disabled:opacity-50 hover:bg-chalk-wash focus:bg-chalk-wash grid w-full grid-cols-[9.5rem_1fr] gap-x-3 rounded px-2 py-1.5 text-left text-[14px]"
      >
        <span className="text-chalk font-semibold">{line.name}</span>
        <span>
          <span className="text-graphite block text-[13px]">{line.says}</span>
          <span className="rule block">{words}</span>
          {line.warns && (
            <span className="text-red block text-[13px]">{phraseText(line.warns, display)}</span>
          )}
        </span>
      </button>
    </li>
  );
}

/** All pieces, or only some, which then go another way. */
function WhichPieces({
  lies,
  only,
  onChange,
}: {
  lies: readonly LyingPiece[];
  only: string[] | undefined;
  onChange: (only: string[] | undefined) => void;
}) {
  const display = useDisplay();
  const chosen = new Set(only ?? lies.map(({ id }) => id));
  const flip = (id: string) => {
    const next = lies.filter((piece) => (piece.id === id ? !chosen.has(id) : chosen.has(piece.id)));
    if (next.length > 0) onChange(next.length === lies.length ? undefined : next.map((piece) => piece.id));
  };
  return (
    <details className="border-line mb-1 rounded border bg-white px-3 py-2 text-[14px]">
      <summary className="cursor-pointer font-medium">
        {only
          ? `Only ${only.length} of ${lies.length} pieces, which go another way`
          : `All ${lies.length} pieces`}
      </summary>
      <p className="text-graphite py-1.5 text-[13px]">
        Pieces you leave out here stay where they are. Those you take go another way and can be laid in later.
      </p>
      <ul className="grid max-h-44 grid-cols-2 gap-x-4 overflow-y-auto">
        {lies.map(({ id, name, size }) => (
          <li key={id}>
            <label className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="accent-chalk h-4 w-4"
                checked={chosen.has(id)}
                onChange={() => flip(id)}
              />
              <span className="capitalize-first">{name}</span>
              <span className="rule text-graphite ml-auto text-[13px]">
                {size.map((mm) => lengthText(mm, display)).join(' × ')}
              </span>
            </label>
          </li>
        ))}
      </ul>
    </details>
  );
}
