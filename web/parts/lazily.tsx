import { type ComponentType, lazy, type LazyExoticComponent, Suspense } from 'react';

const toCome = new Set<() => Promise<unknown>>();

/**
 * A part of the interface that is fetched when it is first shown; what stands there until it has come is the nearest Suspense's.
 * `load` gives the part from its own module.
 */
export function fetched<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
): LazyExoticComponent<ComponentType<Props>> {
  toCome.add(load);
  return lazy(async () => ({ default: await load() }));
}

/** The same, with nothing in its place until it has come. */
export function lazily<Props extends object>(load: () => Promise<ComponentType<Props>>) {
  const Part = fetched(load) as unknown as ComponentType<Props>;
  return (props: Props) => (
    <Suspense fallback={null}>
      <Part {...props} />
    </Suspense>
  );
}

/** Fetches every part that was not shown yet: with the server away later on, all of them can still be opened. */
export async function fetchTheRest(): Promise<void> {
  // Parts that parts ask for come into the set while it is gone through, and are gone through, too.
  for (const load of toCome) await load().catch(() => undefined);
}
