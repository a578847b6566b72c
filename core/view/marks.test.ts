import { describe, expect, it } from 'vitest';
import type { Finding } from '../document';
import { mustEdit } from '../edit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { outlookOf } from '../review';
import { run } from '../run';
import { markName, toLookAt } from '.';

const shop = shopWith();
const panel = plannedFor(
  panelBrief({ sections: 1, flattenWith: 'planer', width: { aim: 'fixed', value: { mm: 500 } } }),
  shop,
);
const outlook = outlookOf(panel, run(panel), undefined);
const inch = { system: 'inch', fraction: 32 } as const;
const nameOf = (id: string) => {
  const step = panel.steps.find((each) => each.id === id);
  if (!step) throw new Error(id);
  const at = outlook.steps.findIndex((each) => each.id === id);
  return markName(panel, step, {
    seen: outlook.steps[at],
    before: outlook.steps[at - 1],
    findings: outlook.findings.filter((finding) => finding.step === id),
    display: inch,
  });
};

describe('a mark of the stick, said', () => {
  it('names its step, its place, what it leaves and what is broken there', () => {
    expect(nameOf('flatten')).toMatch(
      /^Flatten, step 4 of 5, thickness \d.* in, .*wide.*Planer takes.* 13 in/,
    );
    expect(nameOf('rip')).toMatch(
      /^Rip, step 1 of 5, \d+ pieces, length .* in, width .* in, thickness .* in$/,
    );
  });
  it('says only the sizes a step changes, and all of them where nothing was before', () => {
    expect(nameOf('flatten')).not.toMatch(/length/);
    expect(nameOf('trim')).toMatch(/length 36 in/);
  });
  it('says that a step is left out, done or not reached', () => {
    const off = mustEdit(panel, { do: 'setStep', step: 'mill', change: { off: true } });
    const mill = off.steps.find(({ id }) => id === 'mill');
    if (!mill) throw new Error('no mill');
    const none = { seen: undefined, before: undefined, findings: [], display: inch };
    expect(markName(off, mill, none)).toBe('Mill, step 2 of 5, left out, not reached');
    expect(markName(panel, { ...panel.steps[1], done: true }, none)).toBe(
      'Mill, step 2 of 5, done, not reached',
    );
  });
});

it('what is to be looked at stands in the order of the work, the whole job’s last, without notes', () => {
  const finding = (step: string, severity: Finding['severity']): Finding => ({
    code: 'no-size',
    step,
    severity,
    message: [step],
    numbers: {},
    fixes: [],
  });
  const list = [
    finding('', 'warning'),
    finding('trim', 'warning'),
    finding('rip', 'stop'),
    finding('mill', 'note'),
  ];
  expect(toLookAt(panel, list).map(({ step }) => step)).toEqual(['rip', 'trim', '']);
});
