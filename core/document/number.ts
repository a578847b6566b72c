/** Letters and digits that are not taken for one another when they are branded or written small. */
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const LENGTH = 6;

/**
 * The number on a piece: two groups of three signs made of its job's id, always the same, and, of several pieces, which one it is. Two jobs
 * of a shop share one in about one of a billion pairs.
 */
export function pieceNumber(job: string, nth?: number): string {
  let left = 0n;
  for (const sign of job) left = (left * 131n + BigInt(sign.codePointAt(0) ?? 0)) % 1_000_000_007_000_003n;
  let out = '';
  for (let i = 0; i < LENGTH; i++) {
    out += SIGNS[Number(left % BigInt(SIGNS.length))];
    left /= BigInt(SIGNS.length);
    if (i === LENGTH / 2 - 1) out += '-';
  }
  return nth === undefined ? out : `${out}-${nth}`;
}
