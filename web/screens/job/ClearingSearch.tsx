import { useState } from 'react';
import { type ClearingSearch as Found, WISHES, WISH_NAMES, type WishName } from '../../../core/clearing';
import { type BuildDocument, phraseText } from '../../../core/document';
import { counted, type Length } from '../../../core/units';
import { clearingsOf } from '../../app/predicting';
import { useDisplay } from '../../app/display';
import { LengthField } from '../../parts/LengthField';
import { useEdit } from './use-edit';

/** Looks for a layout in which an opening and the aids in the joints clear each other; what may change is the maker’s to say. */
export function ClearingSearch({
  build,
  step,
  feature,
}: {
  build: BuildDocument;
  step: string;
  feature: string;
}) {
  const display = useDisplay();
  const edit = useEdit();
  const [may, setMay] = useState<readonly WishName[]>(['place']);
  const [limit, setLimit] = useState<Length>({ mm: display.system === 'inch' ? 50.8 : 50 });
  const [state, setState] = useState<{ build?: BuildDocument; busy?: true; found?: Found; wrong?: string }>(
    {},
  );
  // What was found for another build is of no use any more.
  const found = state.build === build ? state.found : undefined;
  const look = () => {
    setState({ busy: true });
    clearingsOf(build, { step, feature }, { may, limitMm: limit.mm }).then(
      (next) => setState(next ? { build, found: next } : { wrong: 'This step cannot be played yet.' }),
      (error: unknown) => setState({ wrong: `This could not be computed: ${(error as Error).message}` }),
    );
  };
  return (
    <details className="pt-3">
      <summary className="text-chalk min-h-6 cursor-pointer text-[14.5px] font-medium max-desk:min-h-11">
        Find a layout that clears the joints’ aids
      </summary>
      <fieldset className="flex flex-col gap-1.5 pt-2">
        <legend className="label pb-0.5">What may change</legend>
        {WISH_NAMES.map((name) => (
          <label key={name} className="flex items-center gap-2 text-[14px] max-desk:min-h-11">
            <input
              type="checkbox"
              className="accent-chalk h-4 w-4"
              checked={may.includes(name)}
              onChange={({ target }) =>
                setMay(target.checked ? [...may, name] : may.filter((each) => each !== name))
              }
            />
            {WISHES[name].may}
          </label>
        ))}
        <LengthField
          label="By no more than"
          value={limit}
          display={display}
          rule={{ minMm: 1, maxMm: 500 }}
          onChange={setLimit}
        />
        <button type="button" className="action self-start" disabled={state.busy} onClick={look}>
          {state.busy ? 'Looking …' : 'Look for it'}
        </button>
      </fieldset>
      {state.wrong && (
        <p role="alert" className="text-red pt-2 text-[14px]">
          {state.wrong}
        </p>
      )}
      {found && (
        <div role="status" className="pt-2 text-[14.5px]">
          {found.problems.length === 0 && <p>It clears all aids and edges as it lies.</p>}
          <ul className="text-graphite">
            {found.problems.slice(0, 4).map((words, i) => (
              <li key={i}>{phraseText(words, display)}</li>
            ))}
          </ul>
          {found.found.map(({ words, edit: change }, i) => (
            <p key={i} className="flex flex-wrap items-center gap-2 pt-1.5">
              <span>{phraseText(words, display)}</span>
              <button type="button" className="action" onClick={() => edit(change)}>
                Take it
              </button>
            </p>
          ))}
          {found.problems.length > 0 && found.found.length === 0 && (
            <>
              <p className="pt-1.5">None of {counted(found.trials, 'layout')} clears with what may change.</p>
              {found.cutShort && <p>There are more layouts than are tried: allow less, or by less.</p>}
              {found.excluded.map(([one, other]) => (
                <p key={`${one}${other}`}>
                  Within this limit these two exclude each other: that {WISHES[one].keeps}, and that{' '}
                  {WISHES[other].keeps}.
                </p>
              ))}
            </>
          )}
        </div>
      )}
    </details>
  );
}
