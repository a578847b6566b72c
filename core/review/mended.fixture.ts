/* What the tests of findings share: each way out is carried out, and its finding is gone. */
import { expect } from 'vitest';
import type { BuildDocument, Finding } from '../document';
import { run } from '../run';
import { review } from '.';
import { keepsPromise, playEdit } from './offers';
import { findingsOf } from './review';

const find = (build: BuildDocument): Finding[] => findingsOf(build, run(build));

/** Finds a finding by its code, carries out every way out of it, and expects that each takes it away. Gives the finding. */
export function expectMended(build: BuildDocument, code: string, step?: string): Finding {
  const finding = review(build, run(build)).find(
    (each) => each.code === code && (step === undefined || each.step === step),
  ) as Finding;
  expect(finding, code).toBeDefined();
  expect(finding.fixes.length, `${code} has ways out`).toBeGreaterThan(0);
  for (const { label, edit } of finding.fixes) {
    const after = playEdit(build, edit, find);
    expect(after && keepsPromise(build, finding, find(build), after), label).toBe(true);
  }
  return finding;
}
