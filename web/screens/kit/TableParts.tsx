import { Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useId, useState } from 'react';

/** A table to type in: entries in rows under their heads at a desk, a card each on a phone (`.stacked`, theme.css). */
export const EntryTable = ({ heads, children }: { heads: readonly string[]; children: ReactNode }) => (
  <table
    className="stacked"
    style={Object.fromEntries(heads.map((head, i) => [`--h${i + 1}`, JSON.stringify(head)]))}
  >
    <thead>
      <tr>
        {heads.map((head) => (
          <th key={head} className="label pr-2 pb-1 text-left align-bottom">
            {head}
          </th>
        ))}
        <th>
          <span className="sr-only">Remove</span>
        </th>
      </tr>
    </thead>
    <tbody>{children}</tbody>
  </table>
);

/** What an entry is called; it is never left without a name. */
export const NameCell = ({
  label,
  value,
  width,
  onChange,
}: {
  label: string;
  value: string;
  width: string;
  onChange: (name: string) => void;
}) => (
  <td className="pr-2 pb-1.5">
    <input
      aria-label={label}
      className={`field font-sans! ${width}`}
      value={value}
      maxLength={60}
      onChange={(event) => event.target.value && onChange(event.target.value)}
    />
  </td>
);

/** Takes an entry out of its list. */
export const RemoveButton = ({
  name,
  last = false,
  onRemove,
}: {
  name: string;
  last?: boolean;
  onRemove: () => void;
}) => (
  <button
    type="button"
    className="action px-2"
    aria-label={`Remove ${name}`}
    disabled={last}
    onClick={onRemove}
  >
    <Trash2 size={15} />
  </button>
);

/** The same as the last cell of a row. */
export const RemoveCell = (props: Parameters<typeof RemoveButton>[0]) => (
  <td>
    <RemoveButton {...props} />
  </td>
);

/** Adds an entry to a table. */
export const AddButton = ({ children, onAdd }: { children: ReactNode; onAdd: () => void }) => (
  <button type="button" className="action mt-1" onClick={onAdd}>
    <Plus size={15} aria-hidden /> {children}
  </button>
);

/** A list's entries with one of them changed; what becomes undefined is not said any more, and leaves its entry. */
export const changed = <T extends object>(
  entries: readonly T[],
  at: number,
  part: { [K in keyof T]?: T[K] | undefined },
): T[] =>
  entries.map((entry, i) =>
    i === at
      ? (Object.fromEntries(
          Object.entries({ ...entry, ...part }).filter(([, value]) => value !== undefined),
        ) as unknown as T)
      : entry,
  );
/** A list's entries with one of them taken out. */
export const without = <T,>(entries: readonly T[], at: number): T[] => entries.filter((_, i) => i !== at);

const meant = (text: string): number | undefined =>
  text.trim() === '' ? undefined : Number(text.trim().replace(',', '.'));
const shown = (value: number | undefined): string => (value === undefined ? '' : String(value));

/**
 * A number that may be left empty, then what counts is its placeholder; or may not, where it is `needed`. It is taken when the field
 * is left, or by Enter. What is none is answered below it; the last good one stays.
 */
export function LabelNumber({
  label,
  value,
  least,
  most,
  placeholder,
  needed = false,
  width = 'w-[62px]',
  onChange,
}: {
  label: string;
  value: number | undefined;
  least: number;
  most: number;
  placeholder?: string;
  needed?: boolean;
  width?: string;
  onChange: (value: number | undefined) => void;
}) {
  const id = useId();
  const [text, setText] = useState(shown(value));
  const [reason, setReason] = useState<string>();
  const [from, setFrom] = useState(value);
  if (from !== value) {
    setFrom(value);
    setReason(undefined);
    if (meant(text) !== value) setText(shown(value));
  }
  const take = () => {
    const number = meant(text);
    const good = number === undefined ? !needed : number >= least && number <= most;
    setReason(
      good
        ? undefined
        : number !== undefined && Number.isFinite(number)
          ? `from ${least} to ${most}`
          : 'type a number',
    );
    if (!good) return;
    setText(shown(number));
    if (number !== value) onChange(number);
  };
  return (
    <span>
      <input
        aria-label={label}
        aria-invalid={reason !== undefined}
        aria-describedby={reason ? id : undefined}
        className={`field ${width}`}
        inputMode="decimal"
        placeholder={placeholder}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {reason && (
        <span id={id} role="alert" className={`text-red block pt-0.5 text-[12.5px] ${width}`}>
          {reason}
        </span>
      )}
    </span>
  );
}
