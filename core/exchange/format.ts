/** What goes out of Junta and comes in: one file each, one line in the list. `T` is what it is written from. */
export interface Format<T> {
  id: string;
  /** What a person calls it. */
  name: string;
  /** The end of its files' names, without the dot. */
  extension: string;
  /** Its media type. */
  media: string;
  /** What is in it and who reads it, in one sentence. */
  says: string;
  /** It comes in again. */
  reads: boolean;
  writes: (content: T) => string;
}
