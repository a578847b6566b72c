import { useRef, type ReactNode } from 'react';

/** A button that lets the maker choose a file. The same file can be chosen again. */
export function FileButton({
  label,
  accept,
  onFile,
  children,
}: {
  label: string;
  accept: string;
  onFile: (file: File) => void;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
      <button type="button" className="action" onClick={() => input.current?.click()}>
        {children}
      </button>
    </>
  );
}
