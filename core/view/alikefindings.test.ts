import { describe, expect, it } from 'vitest';
import type { Finding } from '../document';
import { alikeFindings } from '.';

const finding = (step: string, count: number): Finding => ({
  code: 'too-few-clamps',
  step,
  severity: 'warning',
  message: [`${count} clamps are wanted`],
  numbers: { wanted: count },
  fixes: [],
});

describe('findings that are alike', () => {
  it('are said once with their steps; another number is another finding; none is lost', () => {
    const list = [finding('a', 6), finding('b', 7), finding('c', 6), finding('', 6), finding('', 6)];
    const alike = alikeFindings(list);
    expect(alike.map(({ finding: { numbers }, steps }) => [numbers.wanted, steps])).toEqual([
      [6, ['a', 'c']],
      [7, ['b']],
      [6, []],
    ]);
  });
});
