import { DateTime } from 'luxon';
import { useEffect, useState } from 'react';
import type { JointRecord } from '../../../../core/document';
import type { PlannedGlueUp } from '../../../../core/glueup';
import { gluingOf } from '../../../../core/kit';
import type { GlueStep } from '../../../../core/steps';
import { minutesText } from '../../../../core/units';
import { shopTime } from '../../../app/clock';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { Toggle } from '../../../parts/Toggle';
import { LengthField } from '../../../parts/LengthField';
import { useSettle } from '../use-edit';
import { type GluePart, usePlanGlue, Why } from './parts';

/** The present time, renewed every so often. */
function useNow(everyMs: number): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}

/** After the clamps: the gates as times of day and timers, storage, and what came out. */
export function AfterView({ build, step, planned }: GluePart) {
  const settle = useSettle();
  const display = useDisplay();
  const now = useNow(1000);
  const practice = gluingOf(build.shop);
  const zone = practice.hours.zone ?? 'local';
  const { gates } = planned;
  const set = usePlanGlue(step);
  const clamped = step.plan?.clamped ? Date.parse(step.plan.clamped) : undefined;
  const list = [
    {
      name:
        practice.squeezeOut === 'wet'
          ? 'Wipe wet'
          : practice.squeezeOut === 'hard'
            ? 'Scrape hard'
            : 'Scrape, rubbery',
      hours: gates.scrapeH,
    },
    { name: 'Unclamp', hours: gates.unclampH },
    { name: 'Full strength after', hours: gates.stressH },
    { name: 'Plane, sand, saw', hours: gates.surfaceH },
  ];
  return (
    <>
      {clamped === undefined ? (
        <button
          type="button"
          className="action action-main h-11 justify-center text-[16px]"
          onClick={() => set({ clamped: shopTime() })}
        >
          The last clamp is tight now
        </button>
      ) : (
        <div className="flex items-center justify-between text-[14px]">
          <span>
            In clamps since{' '}
            <span className="rule">
              {DateTime.fromMillis(clamped).setZone(zone).toFormat('ccc d LLL HH:mm')}
            </span>
          </span>
          <button
            type="button"
            className="text-graphite underline"
            onClick={() => set({ clamped: undefined })}
          >
            take back
          </button>
        </div>
      )}
      <table className="w-full text-[14px]" aria-label="Gates">
        <thead>
          <tr className="label">
            <th className="text-left font-medium">Not before</th>
            <th className="text-right font-medium">after</th>
            <th className="text-right font-medium">{clamped === undefined ? 'from now' : 'at'}</th>
            <th className="text-right font-medium">left</th>
          </tr>
        </thead>
        <tbody>
          {list.map(({ name, hours }) => {
            const at = (clamped ?? now) + hours * 3_600_000;
            const left = at - now;
            const open = clamped !== undefined && left <= 0;
            return (
              <tr key={name} className="border-line border-t border-dotted">
                <td className="py-1">{name}</td>
                <td className="rule text-right">{minutesText(hours * 60)}</td>
                <td className="rule text-right">
                  {DateTime.fromMillis(at).setZone(zone).toFormat('ccc HH:mm')}
                </td>
                <td
                  className={`rule text-right ${open ? 'text-green' : ''}`}
                  role={clamped === undefined ? undefined : 'timer'}
                >
                  {clamped === undefined ? '–' : open ? '✓ now' : countdown(left)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Why>
        The joint is swollen with the glue’s water: planed too soon it sinks later as a groove. This shop
        waits {minutesText(practice.surfaceWaitH * 60)} before it is machined.
      </Why>
      <Toggle
        label="It rests"
        value={step.plan?.storage ?? 'stickers'}
        options={[
          { value: 'stickers', label: 'On stickers' },
          { value: 'edge', label: 'On edge' },
        ]}
        onChange={(storage) => set({ storage })}
      />
      <Why>Both faces must breathe alike: never flat on a bench, or it cups towards the open face.</Why>
      <JointRecords step={step} planned={planned} />
      <LengthField
        label="Gap under a straightedge across it"
        value={step.plan?.hollow ?? { mm: 0 }}
        display={display}
        rule={{ minMm: 0, maxMm: 50 }}
        stepMm={0.1}
        onChange={(hollow) => set({ hollow }, 'hollow')}
        onSettled={settle}
      />
    </>
  );
}

const countdown = (ms: number): string => {
  const s = Math.ceil(ms / 1000);
  const [h, m] = [Math.floor(s / 3600), Math.floor((s % 3600) / 60)];
  return h > 0 ? `${h}:${String(m).padStart(2, '0')} h` : `${m}:${String(s % 60).padStart(2, '0')}`;
};

const SQUEEZE: readonly (readonly [NonNullable<JointRecord['squeezeOut']>, string])[] = [
  ['even', 'Even'],
  ['lean', 'Lean'],
  ['open', 'Open'],
  ['heavy', 'Too much'],
];

/** Squeeze-out and step of each joint, as they were found; what was predicted stands beside it. */
function JointRecords({ step, planned }: { step: GlueStep; planned: PlannedGlueUp }) {
  const dispatch = useAppDispatch();
  const planGlue = usePlanGlue(step);
  const settle = useSettle();
  const display = useDisplay();
  const joint = useAppSelector(({ job }) => job.joint);
  const records = step.plan?.joints ?? [];
  const record = records.find((each) => each.joint === joint);
  const set = (change: Partial<JointRecord>, mark?: string) =>
    planGlue(
      {
        joints: [...records.filter((each) => each.joint !== joint), { ...record, ...change, joint }].toSorted(
          (a, b) => a.joint - b.joint,
        ),
      },
      mark,
    );
  const said = (n: number) =>
    SQUEEZE.find(([id]) => id === records.find((each) => each.joint === n)?.squeezeOut)?.[1];
  return (
    <section aria-label="What came out" className="flex flex-col gap-2">
      <h3 className="label">What came out, joint by joint</h3>
      <div className="flex flex-wrap gap-1">
        {planned.glueUp.lines.map((line) => (
          <button
            key={line.joint}
            type="button"
            aria-pressed={line.joint === joint}
            className={`h-8 rounded border px-2 text-[13.5px] ${line.joint === joint ? 'border-chalk bg-chalk-wash text-chalk' : 'border-line bg-white'}`}
            onClick={() => dispatch(jobActions.jointChosen(line.joint))}
          >
            <span className="rule">{line.joint}</span> {said(line.joint)?.toLowerCase() ?? ''}
          </button>
        ))}
      </div>
      <Toggle
        label={`Squeeze-out of joint ${joint}`}
        value={record?.squeezeOut ?? ''}
        options={SQUEEZE.map(([value, label]) => ({ value, label }))}
        onChange={(squeezeOut) => set({ squeezeOut: squeezeOut as JointRecord['squeezeOut'] })}
      />
      <LengthField
        label={`Step at joint ${joint}`}
        value={record?.step ?? { mm: 0 }}
        display={{ ...display, fraction: display.system === 'inch' ? 64 : 0 }}
        rule={{ minMm: 0, maxMm: 50 }}
        stepMm={0.1}
        onChange={(next) => set({ step: next }, `step${joint}`)}
        onSettled={settle}
      />
    </section>
  );
}
