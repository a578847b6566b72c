import { type ComponentProps, useState } from 'react';

type Own = 'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown';

/**
 * A line of text that counts when it is left or Enter is pressed, and follows what is set elsewhere. `read` gives what was typed as
 * it is kept; what it does not give is not taken, and what was there comes back.
 */
export function SettledInput({
  value,
  read = (typed) => typed.trim(),
  onChange,
  ...input
}: Omit<ComponentProps<'input'>, Own> & {
  value: string;
  read?: (typed: string) => string | undefined;
  onChange: (value: string) => void;
}) {
  const [text, setText] = useState(value);
  const [from, setFrom] = useState(value);
  if (from !== value) {
    setFrom(value);
    setText(value);
  }
  const take = () => {
    const next = read(text);
    setText(next ?? value);
    if (next !== undefined && next !== value) onChange(next);
  };
  return (
    <input
      {...input}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}
