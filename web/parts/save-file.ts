import type { Format } from '../../core/exchange/format';

/** A name that every file system takes; `usual` where nothing of it is left. */
const fileName = (name: string, usual: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || usual;

/** Saves something as a file of a format, under a name of its own; the browser asks where. */
export function saveFile<T>(format: Format<T>, name: string, content: T): void {
  saveBlob(name, format.extension, new Blob([format.writes(content)], { type: format.media }), format.id);
}

/** Saves bytes as a file, under a name made of `name`; `usual` where nothing of that is left. */
export function saveBlob(name: string, extension: string, blob: Blob, usual = 'file'): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = `${fileName(name, usual)}.${extension}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
