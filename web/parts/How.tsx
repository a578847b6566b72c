import { Sigma } from 'lucide-react';
import { useState } from 'react';
import type { HowOf } from './how-of';
import { lazily } from './lazily';

const HowWindow = lazily(() => import('./HowWindow'), 'HowWindow');

/** One press from a number to how it came about: the formula with the actual numbers, its source and how sure it is. */
export function How({ of, what, words }: { of: HowOf; what: string; words?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="text-chalk inline-flex h-6 min-w-6 shrink-0 items-center justify-center gap-1"
        aria-label={`How is this computed? ${what}`}
        title="How is this computed?"
        onClick={() => setOpen(true)}
      >
        <Sigma size={14} aria-hidden />
        {words && <span className="text-[13px] underline">{words}</span>}
      </button>
      {open && <HowWindow of={of} onClose={() => setOpen(false)} />}
    </>
  );
}
