import { expect, it } from 'vitest';
import { DEFAULT_GLUE_PRACTICE, defaultShop } from '../kit';
import { liftWords } from './lifting';

it('tells who lifts a piece: alone, together, with help, or nobody', () => {
  const shop = (hands: 1 | 2) => ({
    ...defaultShop('s'),
    gluing: { ...DEFAULT_GLUE_PRACTICE, liftKg: 25, hands },
  });
  expect(liftWords(25, shop(1))).toEqual({ words: 'one person', over: false });
  expect(liftWords(25.1, shop(2))).toMatchObject({
    over: false,
    words: expect.stringContaining('2 people together'),
  });
  expect(liftWords(40, shop(1))).toMatchObject({
    over: true,
    words: expect.stringContaining('ask for help'),
  });
  expect(liftWords(900, shop(2))).toMatchObject({
    over: true,
    words: expect.stringContaining('nobody by hand'),
  });
});
