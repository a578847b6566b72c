import { describe, expect, it } from 'vitest';
import { withStored } from './kept';

const kept = { id: 'j', name: 'Shelf', version: 5, tags: ['a'], build: { name: 'Shelf', steps: [] } };
const sent = { version: 5, build: { name: 'Shelf, longer', steps: [1] } };

describe('what is kept of a job that was stored', () => {
  it('is the build that was sent, at the version it became', () => {
    expect(withStored(kept, sent, { version: 6 })).toEqual({
      id: 'j',
      name: 'Shelf, longer',
      version: 6,
      tags: ['a'],
      build: sent.build,
    });
  });
  it('stays as it is where an older answer comes late, or one is not what it should be', () => {
    expect(withStored(kept, sent, { version: 4 })).toBeUndefined();
    expect(withStored(kept, sent, {})).toBeUndefined();
    expect(withStored(kept, { version: 5 }, { version: 6 })).toBeUndefined();
    expect(withStored([], sent, { version: 6 })).toBeUndefined();
    expect(withStored(kept, null, { version: 6 })).toBeUndefined();
    expect(withStored(kept, { ...sent, build: [] }, { version: 6 })).toBeUndefined();
  });
});
