import { raised } from '../document';
import { withUsualShop } from '../kit';
import type { Setting } from './field';
import { STEP_ROOMS } from './list';

type Raw = Record<string, unknown>;

/**
 * A step as it was read, with the usual value of every setting that is missing and has one (`fallback` of its field): an amount
 * that comes off is nothing, a fence is set once a width. A setting without a usual value stays missing, and is
 * refused. Steps of kinds that are not known, and what is no step, are given back as they are.
 */
export function withUsualSettings(step: unknown): unknown {
  const raw = step as Raw | null;
  const room = STEP_ROOMS.find(({ kind }) => kind === raw?.kind);
  if (!raw || !room) return step;
  const missing = Object.entries<Setting>(room.fields).filter(
    ([name, { fallback }]) => fallback !== undefined && !(name in raw),
  );
  return missing.length === 0
    ? step
    : {
        ...raw,
        ...Object.fromEntries(missing.map(([name, { fallback }]) => [name, structuredClone(fallback)])),
      };
}

/**
 * A document of any version ever written, as one of this version with the usual values where some are missing; what is no
 * document, as it is. Nothing is checked here.
 */
export function asCurrent(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  const document = raised(value as Record<string, unknown>);
  if (!document) return value;
  const { steps, shop } = document;
  return {
    ...document,
    ...(Array.isArray(steps) ? { steps: steps.map(withUsualSettings) } : {}),
    ...(shop === undefined ? {} : { shop: withUsualShop(shop) }),
  };
}
