import { Suspense, useId, useState } from 'react';
import { CHOICE_FIELD, type Option, Shown } from './choice-face';
import { fetched } from './lazily';

// The list and what it stands on are fetched when one is first pressed: most of a card's choices never are.
const ChoiceList = fetched(() => import('./ChoiceList'), 'ChoiceList');

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
  const [pressed, setPressed] = useState(false);
  const closed = (
    <button
      type="button"
      role="combobox"
      aria-labelledby={id}
      aria-haspopup="listbox"
      aria-expanded={false}
      className={CHOICE_FIELD}
      onClick={() => setPressed(true)}
      onKeyDown={(event) => {
        if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
        event.preventDefault();
        setPressed(true);
      }}
    >
      <Shown chosen={options.find((option) => option.value === value)} />
    </button>
  );
  return (
    <div className={className}>
      <span id={id} className={hideLabel ? 'sr-only' : 'label block pb-0.5'}>
        {label}
      </span>
      {pressed ? (
        <Suspense fallback={closed}>
          <ChoiceList labelled={id} value={value} options={options} onChange={onChange} />
        </Suspense>
      ) : (
        closed
      )}
    </div>
  );
}
