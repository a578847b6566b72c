/* What the window is called: the name of its screen, after what rings just now. */

let screen = 'Junta';
let ring: string | undefined;

const show = (): void => {
  document.title = ring === undefined ? screen : `● ${ring} · ${screen}`;
};

/** Names the window after the screen that is open; the name of the application is put behind. */
export function nameWindow(name: string): void {
  screen = `${name} · Junta`;
  show();
}

/** What rings stands before the name of the screen; undefined takes it away. */
export function ringInTitle(words: string | undefined): void {
  ring = words;
  show();
}
