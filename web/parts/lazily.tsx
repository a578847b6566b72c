import { type ComponentType, lazy, type LazyExoticComponent, Suspense } from 'react';
import { answers, reach } from '../app/reach';

const toCome = new Set<() => Promise<unknown>>();

/** Pause between two looks for a server that cannot give a part just now, ms. */
const LOOK_MS = 1000;
const pause = () => new Promise<void>((done) => setTimeout(done, LOOK_MS));

/** The file that could not be fetched, as the browser's message names it. */
const fileIn = (error: unknown): string | undefined =>
  /https?:\/\/\S+\.m?js/.exec((error as Partial<Error> | undefined)?.message ?? '')?.[0];

/**
 * A part out of its module, fetched when it is needed. Where the server is away just then it comes as soon as that is back: a browser
 * remembers that a file could not be fetched and does not ask for it again, so it is asked for under another address.
 */
async function fetchPart<Module extends object, Name extends keyof Module>(
  load: () => Promise<Module>,
  name: Name,
): Promise<Module[Name]> {
  try {
    return (await load())[name];
  } catch (error) {
    const file = fileIn(error);
    if (!file) throw error;
    while (!(await answers())) await pause();
    try {
      return ((await import(/* @vite-ignore */ `${file}?again=${Date.now()}`)) as Module)[name];
    } catch {
      // What it needs itself could not be fetched either: the page, loaded anew, asks for all of it. Every change is kept before it is shown.
      location.reload();
      return new Promise(() => {});
    }
  }
}

/** What a part of a module takes, where it is a part at all. */
type PropsOf<Part> = Part extends ComponentType<infer Props> ? Props & object : never;

/**
 * A part of the interface that is fetched when it is first shown; what stands there until it has come is the nearest Suspense's.
 * `load` gives its module, `name` what it is called there.
 */
export function fetched<Module extends object, Name extends keyof Module>(
  load: () => Promise<Module>,
  name: Name,
): LazyExoticComponent<ComponentType<PropsOf<Module[Name]>>> {
  toCome.add(load);
  return lazy(async () => ({
    default: (await fetchPart(load, name)) as ComponentType<PropsOf<Module[Name]>>,
  }));
}

/** The same, with nothing in its place until it has come. */
export function lazily<Module extends object, Name extends keyof Module>(
  load: () => Promise<Module>,
  name: Name,
) {
  const Part = fetched(load, name) as unknown as ComponentType<PropsOf<Module[Name]>>;
  return (props: PropsOf<Module[Name]>) => (
    <Suspense fallback={null}>
      <Part {...props} />
    </Suspense>
  );
}

/** Fetches every part that was not shown yet: with the server away later on, all of them can still be opened. None is asked for while it is away. */
export async function fetchTheRest(): Promise<void> {
  // Parts that parts ask for come into the set while it is gone through, and are gone through, too.
  for (const load of toCome) {
    while (reach().away !== undefined) await pause();
    await load().catch(() => undefined);
  }
}
