import type { Mark } from './marks';

/** What a note belongs to: a job, at a step of it, of a piece, of something that failed; or a board of the rack. */
export interface NotePlace {
  job?: string;
  board?: string;
  step?: string;
  piece?: string;
  failure?: string;
}

/** A note as it is written: words, and marks that are drawn on its photo. The photo itself is kept beside it. */
export interface NoteContent extends NotePlace {
  words: string;
  marks: Mark[];
  /** When it was taken, as an ISO time, and who took it. */
  at: string;
  who?: string;
  /** Taken away: it can be brought back for 30 days. */
  removed?: boolean;
}

/** A photo as it is kept: upright, with nothing in it but the picture. */
export interface PhotoSize {
  widthPx: number;
  heightPx: number;
  bytes: number;
}

/** A note as the server has it. */
export interface Note extends NoteContent {
  id: string;
  version: number;
  photo?: PhotoSize;
}

export const MOST_NOTE_WORDS = 2000;
/** The most notes of one job, or of one board. */
export const MOST_NOTES = 500;
/** The kinds of picture that are taken. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
/** The largest file, and the longer side that is kept of it. */
export const MOST_PHOTO_BYTES = 12 * 1024 * 1024;
export const KEPT_PX = 2000;

const MB = 1024 * 1024;
/** Bytes as a person reads them, MB: below ten with one decimal. */
export const megabytes = (bytes: number): string => {
  const mb = bytes / MB;
  return `${mb < 10 ? mb.toFixed(1) : Math.round(mb).toLocaleString('en')} MB`;
};

/** Why a file is not taken as a photo, by what is known of it before it is read; undefined where it may be one. */
export function notAPhoto({ type, size }: { type: string; size: number }): string | undefined {
  if (size === 0) return 'This file is empty: it holds 0 bytes.';
  if (size > MOST_PHOTO_BYTES)
    return `This photo has ${megabytes(size)}; the most is ${megabytes(MOST_PHOTO_BYTES)}. Take it with a smaller size in the camera’s settings.`;
  // A browser that does not know the type says nothing: the server looks into the file itself.
  if (type !== '' && !(PHOTO_TYPES as readonly string[]).includes(type))
    return `This is ${type.slice(0, 40)}. Junta takes JPEG, PNG and WebP.`;
  return undefined;
}
