import { useEffect, useState } from 'react';
import type { SentPhoto } from '../../app/sending';
import { photoAddress, type ShownNote } from '../../app/notes';

/** How large a photo is as it is shown, px. */
export interface Sides {
  widthPx: number;
  heightPx: number;
}

/** The address of a photo that is only here so far; it is given back when nobody shows it any more. */
function useTaken(taken: SentPhoto | undefined): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    if (!taken) return;
    const made = URL.createObjectURL(new Blob([taken.bytes], { type: taken.type }));
    setUrl(made);
    return () => {
      setUrl(undefined);
      URL.revokeObjectURL(made);
    };
  }, [taken]);
  return url;
}

/** A photo that is only here so far; nothing where there is none. */
export function TakenPicture({
  taken,
  alt,
  className,
}: {
  taken: SentPhoto | undefined;
  alt: string;
  className: string;
}) {
  const src = useTaken(taken);
  return src ? <img src={src} alt={alt} className={className} /> : null;
}

/** Whether a note has a photo, stored or still here. */
export const hasPhoto = ({ photo, taken }: ShownNote): boolean => photo !== undefined || taken !== undefined;

/** The photo of a note: the stored one, or the one that waits here. `onSides` is told how large it is, px. */
export function Picture({
  note,
  alt,
  size,
  className,
  onSides,
}: {
  note: ShownNote;
  alt: string;
  size?: 'small';
  className: string;
  onSides?: (sides: Sides) => void;
}) {
  const taken = useTaken(note.photo ? undefined : note.taken);
  const [gone, setGone] = useState(false);
  const src = note.photo ? photoAddress(note.id, size) : taken;
  if (gone)
    return (
      <span className="text-graphite flex items-center justify-center p-3 text-center text-[15px]">
        This photo cannot be shown just now: the server does not give it.
      </span>
    );
  if (!src) return null;
  return (
    <img
      src={src}
      alt={alt}
      className={className}
      draggable={false}
      onError={() => setGone(true)}
      onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
        onSides?.({ widthPx: naturalWidth, heightPx: naturalHeight })
      }
    />
  );
}
