/** A box to tick, with its words beside it. */
export function Tick({
  label,
  checked,
  onChange,
  disabled = false,
}: {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
}) {
  return (
    <label className="flex min-h-8 items-center gap-1.5 text-[14px] max-desk:min-h-11">
      <input
        type="checkbox"
        className="accent-chalk h-4 w-4 shrink-0"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}
