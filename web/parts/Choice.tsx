import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import { useId, useState, type ReactNode } from 'react';

export interface Option {
  value: string;
  label: string;
  mark?: ReactNode;
  disabled?: boolean;
  /** Options of one group stand together, under its name. */
  group?: string;
}

/** Options in their order, those that follow one another with one group together. */
const grouped = (options: readonly Option[]): { group: string | undefined; options: Option[] }[] =>
  options.reduce<{ group: string | undefined; options: Option[] }[]>((all, option) => {
    const last = all.at(-1);
    if (last && last.group === option.group) last.options.push(option);
    else all.push({ group: option.group, options: [option] });
    return all;
  }, []);

/** One of a list, by mouse, touch or keyboard. */
export function Choice({
  label,
  value,
  options,
  onChange,
  hideLabel = false,
  className = '',
}: {
  label: string;
  value: string;
  options: readonly Option[];
  onChange: (value: string) => void;
  hideLabel?: boolean;
  className?: string;
}) {
  const id = useId();
  // The list is made only while it is open: a hundred closed entries would cost more than the rest of the card.
  const [open, setOpen] = useState(false);
  const chosen = options.find((option) => option.value === value);
  return (
    <div className={className}>
      <span id={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </span>
      <Select.Root value={value} onValueChange={onChange} open={open} onOpenChange={setOpen}>
        <Select.Trigger
          aria-labelledby={id}
          className="field flex w-full items-center justify-between gap-1 text-left font-sans! font-medium!"
        >
          <span className="flex min-w-0 items-center gap-2 truncate">
            <Select.Value placeholder="choose">
              <span className="inline-flex items-center gap-2">
                {chosen?.mark}
                {chosen?.label}
              </span>
            </Select.Value>
          </span>
          <ChevronDown size={14} aria-hidden />
        </Select.Trigger>
        {open && (
          <Select.Portal>
            <Select.Content
              position="popper"
              sideOffset={3}
              className="sheet z-50 max-h-80 overflow-hidden shadow-lg"
            >
              <Select.Viewport className="p-1">
                {grouped(options).map((each, i) => (
                  <Select.Group key={each.group ?? i}>
                    {each.group && (
                      <Select.Label className="label px-2 pt-2 pb-0.5">{each.group}</Select.Label>
                    )}
                    {each.options.map((option) => (
                      <Select.Item
                        key={option.value}
                        value={option.value}
                        disabled={option.disabled}
                        className="data-[highlighted]:bg-chalk-wash flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 text-[14px] outline-none data-[disabled]:opacity-50"
                      >
                        <Select.ItemText>
                          <span className="inline-flex items-center gap-2">
                            {option.mark}
                            {option.label}
                          </span>
                        </Select.ItemText>
                        <Select.ItemIndicator className="ml-auto">
                          <Check size={14} aria-hidden />
                        </Select.ItemIndicator>
                      </Select.Item>
                    ))}
                  </Select.Group>
                ))}
              </Select.Viewport>
            </Select.Content>
          </Select.Portal>
        )}
      </Select.Root>
    </div>
  );
}

/** One of a few, all in sight. */
export function Toggle<T extends string>({
  label,
  value,
  options,
  onChange,
  hideLabel = false,
}: {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
  hideLabel?: boolean;
}) {
  const id = useId();
  return (
    <div role="radiogroup" aria-labelledby={id}>
      <span id={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </span>
      <div className="flex max-w-full overflow-x-auto p-px">
        {options.map((option, i) => (
          <label
            key={option.value}
            className={`has-[:focus-visible]:outline-chalk relative flex h-8 cursor-pointer items-center border px-2.5 text-[14px] font-medium whitespace-nowrap has-[:focus-visible]:outline-2 ${i ? '-ml-px' : 'rounded-l'} ${i === options.length - 1 ? 'rounded-r' : ''} ${option.value === value ? 'border-chalk bg-chalk-wash text-chalk z-10' : 'border-line bg-white'}`}
          >
            <input
              type="radio"
              name={id}
              className="absolute inset-0 cursor-pointer opacity-0"
              checked={option.value === value}
              onChange={() => onChange(option.value)}
            />
            {option.label}
          </label>
        ))}
      </div>
    </div>
  );
}
