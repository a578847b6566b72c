import { Check } from 'lucide-react';
import { Select } from 'radix-ui';
import { useState } from 'react';
import { CHOICE_FIELD, type Option, Shown } from './choice-face';

/** Options in their order, those that follow one another with one group together. */
const grouped = (options: readonly Option[]): { group: string | undefined; options: Option[] }[] =>
  options.reduce<{ group: string | undefined; options: Option[] }[]>((all, option) => {
    const last = all.at(-1);
    if (last && last.group === option.group) last.options.push(option);
    else all.push({ group: option.group, options: [option] });
    return all;
  }, []);

/** A choice that was pressed: the button as it stood, and the list under it, open at first. */
export function ChoiceList({
  labelled,
  value,
  options,
  onChange,
}: {
  /** The id of what names it. */
  labelled: string;
  value: string;
  options: readonly Option[];
  onChange: (value: string) => void;
}) {
  const [open, setOpen] = useState(true);
  const chosen = options.find((option) => option.value === value);
  return (
    <Select.Root value={value} onValueChange={onChange} open={open} onOpenChange={setOpen}>
      <Select.Trigger aria-labelledby={labelled} className={CHOICE_FIELD}>
        <Shown chosen={chosen} />
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
                  {each.group && <Select.Label className="label px-2 pt-2 pb-0.5">{each.group}</Select.Label>}
                  {each.options.map((option) => (
                    <Select.Item
                      key={option.value}
                      value={option.value}
                      disabled={option.disabled}
                      className="data-[highlighted]:bg-chalk-wash flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 text-[14px] outline-none pointer-coarse:min-h-11 data-[disabled]:opacity-50"
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
  );
}
