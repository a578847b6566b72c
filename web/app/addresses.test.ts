import { expect, test } from 'vitest';
import { ADDRESSES, addressOf } from './addresses';

test('a path belongs to its own address, also where another with a place for any word would take it', () => {
  for (const address of Object.keys(ADDRESSES))
    expect(addressOf(`/${address.replaceAll(/:\w+/g, 'a1b2')}`)).toBe(address);
  expect(addressOf('/jobs/new')).toBe('jobs/new');
  expect(addressOf('/nowhere/at/all')).toBeUndefined();
});
