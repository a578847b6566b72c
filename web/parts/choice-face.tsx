import { ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';

/** One of the things that can be chosen. */
export interface Option {
  value: string;
  label: string;
  mark?: ReactNode;
  disabled?: boolean;
  /** Options of one group stand together, under its name. */
  group?: string;
}

export const CHOICE_FIELD =
  'field flex w-full items-center justify-between gap-1 text-left font-sans! font-medium!';

/** What a choice shows while it is closed. */
export const Shown = ({ chosen }: { chosen: Option | undefined }) => (
  <>
    <span className="flex min-w-0 items-center gap-2 truncate">
      <span className="inline-flex items-center gap-2">
        {chosen?.mark}
        {chosen?.label ?? 'choose'}
      </span>
    </span>
    <ChevronDown size={14} aria-hidden className="shrink-0" />
  </>
);
