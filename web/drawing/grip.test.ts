import { expect, test } from 'vitest';
import { FINGER_PX, gripWidth } from './grip';

test('what lies by itself is as wide as a finger; between neighbours a finger takes the nearer one', () => {
  expect(gripWidth([])).toBe(FINGER_PX);
  expect(gripWidth([120])).toBe(FINGER_PX);
  expect(gripWidth([300, 0, 100])).toBe(FINGER_PX);
  expect(gripWidth([50, 20, 90])).toBe(30);
  // Two at one place are told apart by keys.
  expect(gripWidth([10, 10, 40])).toBe(30);
});
