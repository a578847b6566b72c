const KEY = 'junta-hints';
let here: string[] | undefined;

/** The first-use lines that were read in this browser, by what they are of. */
export function hintsRead(): readonly string[] {
  try {
    here ??= (localStorage.getItem(KEY) ?? '').split(',').filter(Boolean);
  } catch {
    // A browser that keeps nothing: they are read as long as the page.
    here ??= [];
  }
  return here;
}

/** Notes that one was read. */
export function readHint(of: string): void {
  here = [...hintsRead(), of];
  try {
    localStorage.setItem(KEY, here.join(','));
  } catch {
    // As above.
  }
}
