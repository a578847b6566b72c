import { useId } from 'react';
import { PHOTO_TYPES } from '../../../core/notes';

/** Lets the maker choose photos, or take one: the camera is offered where fingers, not a mouse, are at work. */
export function PhotoButton({
  label,
  icon,
  camera = false,
  onFiles,
}: {
  label: string;
  icon: React.ReactNode;
  camera?: boolean;
  onFiles: (files: readonly File[]) => void;
}) {
  const id = useId();
  return (
    <label
      htmlFor={id}
      className={`action h-11 cursor-pointer focus-within:outline-2 ${camera ? 'hidden pointer-coarse:flex' : ''}`}
    >
      {icon} {label}
      <input
        id={id}
        type="file"
        accept={PHOTO_TYPES.join(',')}
        className="sr-only"
        {...(camera ? { capture: 'environment' } : { multiple: true })}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </label>
  );
}
