import { useState } from 'react';
import type { Saw } from '../../../core/kit';
import { leavesOf } from '../../../core/stock';
import { counted, type Length, lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';

/** How many leaves and pairs a board gives when it is resawn, by saw and leaf thickness. */
export function Leaves({
  saws,
  widthMm,
  thicknessMm,
}: {
  saws: readonly Saw[];
  widthMm: number;
  thicknessMm: number;
}) {
  const display = useDisplay();
  const deepest = saws.toSorted((a, b) => b.depth.mm - a.depth.mm)[0];
  const [sawId, setSaw] = useState(deepest?.id ?? '');
  const [leaf, setLeaf] = useState<Length>();
  const saw = saws.find(({ id }) => id === sawId) ?? deepest;
  if (!saw) return null;
  const given = leaf && leavesOf({ thicknessMm, leafMm: leaf.mm, kerfMm: saw.kerf.mm });
  const tooWide = saw.depth.mm > 0 ? widthMm - saw.depth.mm : 0;
  return (
    <section aria-label="Resawn into leaves" className="pt-2">
      <h2 className="label">Resawn into leaves, once it is flat</h2>
      <div className="grid grid-cols-2 items-end gap-2">
        <LengthField
          label="Leaf, as sawn"
          value={leaf ?? { mm: 0 }}
          display={display}
          rule={{ minMm: 0.3, maxMm: 200 }}
          onChange={setLeaf}
        />
        <Choice
          label="Saw, and its kerf"
          value={saw.id}
          options={saws.map(({ id, name, kerf }) => ({
            value: id,
            label: `${name}, ${lengthText(kerf.mm, display)}`,
          }))}
          onChange={setSaw}
        />
      </div>
      {given && (
        <p className="pt-1 text-[14px]" aria-live="polite">
          {counted(given.leaves, 'leaf', 'leaves')}, {counted(given.pairs, 'pair')} that open as a book;{' '}
          {lengthText(given.restMm, display)} left.
        </p>
      )}
      {tooWide > 0 && (
        <p className="text-red pt-1 text-[13px]">
          {saw.name} cuts {lengthText(saw.depth.mm, display)} deep; the board is{' '}
          {lengthText(widthMm, display)} wide. Rip it {lengthText(tooWide, display)} narrower first.
        </p>
      )}
    </section>
  );
}
