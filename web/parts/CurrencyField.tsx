import { useId, useState } from 'react';

const CODES: readonly string[] =
  'supportedValuesOf' in Intl
    ? (Intl as { supportedValuesOf: (key: string) => string[] }).supportedValuesOf('currency')
    : [];
const names = new Intl.DisplayNames('en', { type: 'currency' });

/** The currency that prices are in, by its three letters (ISO 4217); none is a choice too. */
export function CurrencyField({
  value,
  onChange,
}: {
  value: string | undefined;
  onChange: (value: string | undefined) => void;
}) {
  const id = useId();
  const [text, setText] = useState(value ?? '');
  const isCode = /^[A-Z]{3}$/.test(text);
  return (
    <label className="flex max-w-[420px] flex-col">
      <span className="label pb-0.5">Currency (three letters, such as EUR)</span>
      <span className="flex items-center gap-2">
        <input
          className="field w-24"
          maxLength={3}
          value={text}
          list={id}
          autoComplete="off"
          aria-invalid={text !== '' && !isCode}
          onChange={(event) => {
            const next = event.target.value.toUpperCase();
            setText(next);
            if (next === '') onChange(undefined);
            else if (/^[A-Z]{3}$/.test(next)) onChange(next);
          }}
        />
        <span className={`text-[14px] ${text !== '' && !isCode ? 'text-red' : 'text-graphite'}`}>
          {text === '' ? 'none: each price names its own' : isCode ? names.of(text) : 'three letters'}
        </span>
      </span>
      <datalist id={id}>
        {CODES.map((code) => (
          <option key={code} value={code}>
            {names.of(code)}
          </option>
        ))}
      </datalist>
    </label>
  );
}
