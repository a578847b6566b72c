import { useId } from 'react';

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
    <div role="radiogroup" aria-labelledby={id} className="max-w-full min-w-0">
      <span id={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </span>
      <div className="flex max-w-full overflow-x-auto p-px">
        {options.map((option, i) => (
          <label
            key={option.value}
            className={`has-[:focus-visible]:outline-chalk relative flex min-h-8 cursor-pointer items-center border px-2.5 text-[14px] font-medium whitespace-nowrap has-[:focus-visible]:outline-2 ${i ? '-ml-px' : 'rounded-l'} ${i === options.length - 1 ? 'rounded-r' : ''} ${option.value === value ? 'border-chalk bg-chalk-wash text-chalk z-10' : 'border-edge bg-white'}`}
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
