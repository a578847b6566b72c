import type { Format } from '../../core/exchange/format';

/** A name that every file system takes; `usual` where nothing of it is left. */
const fileName = (name: string, usual: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || usual;

/** Saves something as a file of a format, under a name of its own; the browser asks where. */
export function saveFile<T>(format: Format<T>, name: string, content: T): void {
  const url = URL.createObjectURL(new Blob([format.writes(content)], { type: format.media }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${fileName(name, format.id)}.${format.extension}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
