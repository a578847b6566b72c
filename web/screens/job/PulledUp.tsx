import { ChevronDown, ChevronUp, TriangleAlert } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { type Finding, phraseText } from '../../../core/document';
import type { Display } from '../../../core/units';

/**
 * The card beside the bench; on a phone a sheet at the lower edge that is pulled up over the drawing. Its first line says what
 * needs attention, whether it is up or down.
 */
export function PulledUp({
  title,
  first,
  display,
  children,
}: {
  title: string;
  first: Finding | undefined;
  display: Display;
  children: ReactNode;
}) {
  const [up, setUp] = useState(false);
  const Sign = up ? ChevronDown : ChevronUp;
  return (
    <aside
      aria-label="Step"
      id="card"
      tabIndex={-1}
      className={`sheet isolate flex w-[344px] shrink-0 flex-col overflow-hidden max-lg:portrait:w-full max-lg:portrait:max-h-[44dvh] max-desk:fixed max-desk:inset-x-0 max-desk:bottom-0 max-desk:z-30 max-desk:w-full max-desk:rounded-b-none max-desk:shadow-[0_-6px_18px_rgb(0_0_0/0.18)] ${up ? 'max-desk:max-h-[80dvh]' : 'max-desk:max-h-16'}`}
    >
      <h2 className="desk:hidden">
        <button
          type="button"
          aria-expanded={up}
          className="flex h-16 w-full shrink-0 items-center gap-3 px-4 text-left"
          onClick={() => setUp(!up)}
        >
          <span className="min-w-0 flex-1">
            <span className="block truncate text-[17px] leading-tight font-semibold">{title}</span>
            {first && (
              <span className="text-red flex items-center gap-1 text-[13.5px]">
                <TriangleAlert size={14} aria-label="Warning" className="shrink-0" />
                <span className="truncate">{phraseText(first.message, display)}</span>
              </span>
            )}
          </span>
          <Sign size={24} aria-hidden />
        </button>
      </h2>
      <div
        className={`flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto p-4 [&>*]:shrink-0 ${up ? '' : 'max-desk:hidden'}`}
      >
        {children}
      </div>
    </aside>
  );
}
