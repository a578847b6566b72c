import { wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Brief, BuildDocument } from '../../../core/document';
import { fromPanel, rowsOf } from '../../../core/plan';
import { flattenings } from '../../../core/steps';
import type { Largest } from '../../../core/stock';
import { counted, type Display, type Length } from '../../../core/units';
import { useBoardsQuery } from '../../app/api';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import type { BreakdownWorker } from '../../workers/breakdown.worker';
import { freeFor } from '../wood/use-breakdown';
import { Working } from '../../parts/Working';

/** Planned the other way: the largest piece the rack gives, and what a panel on hand yields. */
export function StockAllows({
  id,
  build,
  display,
  onUse,
}: {
  id: string;
  build: BuildDocument;
  display: Display;
  onUse: (change: Partial<Brief>) => void;
}) {
  return (
    <details className="text-[14px]">
      <summary className="label cursor-pointer py-1">What the stock allows</summary>
      <FromRack id={id} build={build} display={display} onUse={onUse} />
      {rowsOf(build) && <FromPanel build={build} display={display} />}
    </details>
  );
}

function FromRack({
  id,
  build,
  display,
  onUse,
}: {
  id: string;
  build: BuildDocument;
  display: Display;
  onUse: (change: Partial<Brief>) => void;
}) {
  const { data: rack } = useBoardsQuery();
  const [found, setFound] = useState<{ dimension: 'length' | 'width'; answer: Largest }>();
  const [busy, setBusy] = useState<Worker>();
  const newest = useRef(build);
  useEffect(() => {
    // An answer to another plan is none to this one.
    newest.current = build;
    setFound(undefined);
  }, [build]);
  useEffect(() => () => busy?.terminate(), [busy]);
  const ask = async (dimension: 'length' | 'width') => {
    const thread = new Worker(new URL('../../workers/breakdown.worker.ts', import.meta.url), {
      type: 'module',
    });
    setBusy(thread);
    setFound(undefined);
    const boards = freeFor(rack ?? [], [id]);
    const answer = await wrap<BreakdownWorker>(thread).largest(build, boards, dimension);
    setBusy(undefined);
    if (newest.current === build) setFound({ dimension, answer });
  };
  const name = found?.dimension ?? 'length';
  return (
    <div className="flex flex-col gap-1.5 pb-2">
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="action"
          disabled={!rack || busy !== undefined}
          onClick={() => void ask('length')}
        >
          Longest from the rack
        </button>
        <button
          type="button"
          className="action"
          disabled={!rack || busy !== undefined}
          onClick={() => void ask('width')}
        >
          Widest from the rack
        </button>
        {busy && (
          <button type="button" className="action" onClick={() => setBusy(undefined)}>
            Stop
          </button>
        )}
      </div>
      {busy && <Working>Breaking down the rack for one size after another …</Working>}
      {found && (
        <p role="status">
          {found.answer.sizeMm === undefined ? (
            'The boards on the rack give none of this, not even a fifth of the size.'
          ) : (
            <>
              The boards on the rack give {found.answer.more && 'at least '}a {name} of{' '}
              <Measure value={found.answer.sizeMm} display={display} unit />.{' '}
              <button
                type="button"
                className="text-chalk underline"
                onClick={() => onUse({ [name]: { aim: 'fixed', value: { mm: found.answer.sizeMm ?? 0 } } })}
              >
                Plan that
              </button>
            </>
          )}
        </p>
      )}
    </div>
  );
}

function FromPanel({ build, display }: { build: BuildDocument; display: Display }) {
  const [length, setLength] = useState<Length>({ mm: build.assemblies[0]?.slots[0]?.length.mm ?? 600 });
  const [flat] = flattenings(build);
  const planned = useMemo(() => fromPanel(build, { length: 1, thickness: 1 })?.keepsPattern ?? 30, [build]);
  const [thickness, setThickness] = useState<Length>({ mm: planned });
  const answer = fromPanel(build, { length: length.mm, thickness: thickness.mm });
  const mm = (value: number) => <Measure value={value} display={display} unit />;
  return (
    <div className="flex flex-col gap-1.5">
      <div className="grid grid-cols-2 gap-3">
        <LengthField
          label="Panel on hand, length"
          value={length}
          display={display}
          rule={{ minMm: 10 }}
          onChange={setLength}
        />
        <LengthField
          label={flat ? 'Its thickness once flat' : 'Its thickness'}
          value={thickness}
          display={display}
          rule={{ minMm: 2 }}
          onChange={setThickness}
        />
      </div>
      {answer && (
        <p>
          It gives {counted(answer.slices, 'slice')} of the {answer.needed} needed
          {answer.slices < answer.needed ? (
            <>
              : a piece {mm(answer.finished)} long. It would have to be {mm(answer.longer)} longer.
            </>
          ) : (
            '.'
          )}{' '}
          The number of rows as planned is kept at a thickness of {mm(answer.keepsPattern)}.
        </p>
      )}
    </div>
  );
}
