import { useEffect, useState } from 'react';
import { type BuildDocument, type Failure, phraseText } from '../../../core/document';
import type { Plan } from '../../../core/recovery';
import { boardFeetOf } from '../../../core/stock';
import { counted, type Display, lengthText, minutesText, volumeText, woodText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { plansAfter } from '../../app/predicting';
import { Working } from '../../parts/Working';
import { useEdit } from '../job/use-edit';
import { when } from '../today/moment';

const OVER = {
  length: ['too long', 'too short'],
  width: ['too wide', 'too narrow'],
  thickness: ['too thick', 'too thin'],
} as const;
/** A minute more or less is none, and a drop of wood neither. */
const LEAST = { minutes: 1, mm3: 1000, ms: 60_000 };

/** Wood as it is bought: in board feet, or by its volume. */
const amountOf = (mm3: number, display: Display): string =>
  display.system === 'mm' ? volumeText(mm3, display) : woodText(boardFeetOf(mm3), display);

/** The ways to go on after a failure, with what each costs; one is taken with one press. */
export function PlanList({
  build,
  told,
  zone,
  onBack,
  onTaken,
}: {
  build: BuildDocument;
  told: Failure;
  zone: string;
  onBack: () => void;
  onTaken: () => void;
}) {
  const edit = useEdit();
  const display = useDisplay();
  const [found, setFound] = useState<Plan[] | string>();
  useEffect(() => {
    let here = true;
    plansAfter(build, told, { zone, display }).then(
      (plans) => here && setFound(plans),
      (error: unknown) => here && setFound((error as Error).message),
    );
    return () => {
      here = false;
    };
  }, [build, told, zone, display]);
  const note = () => {
    edit({ do: 'fail', failure: told });
    onTaken();
  };
  return (
    <div className="flex flex-col gap-3">
      {found === undefined && <Working>Playing each way forward …</Working>}
      {typeof found === 'string' && (
        <p role="alert" className="text-red">
          {`This could not be computed: ${found}`}
        </p>
      )}
      {Array.isArray(found) && found.length === 0 && (
        <p role="status">
          No way that was tried can be played to the end here. Write it down, and change the steps by hand.
        </p>
      )}
      {Array.isArray(found) && (
        <ul aria-label="Ways to go on" className="flex flex-col gap-3">
          {found.map((plan) => (
            <OnePlan
              key={plan.label}
              plan={plan}
              zone={zone}
              onTake={() => {
                edit(plan.edit);
                onTaken();
              }}
            />
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="action h-12 px-4" onClick={onBack}>
          ‹ Tell it again
        </button>
        <button type="button" className="action h-12 px-4" onClick={note}>
          Only write it down
        </button>
      </div>
    </div>
  );
}

function OnePlan({ plan, zone, onTake }: { plan: Plan; zone: string; onTake: () => void }) {
  const display = useDisplay();
  const { label, says, misses, fewer, raised, woodMm3, minutes, doneAt, wasDoneAt, steps } = plan;
  const [now] = useState(() => Date.now());
  const good = misses.length === 0 && fewer === 0;
  const later = doneAt - wasDoneAt;
  return (
    <li className="border-line flex flex-col gap-1.5 rounded border bg-white p-3">
      <h3 className="text-[17px] leading-snug font-semibold">{label}</h3>
      <p className="text-[15px]">{phraseText(says, display)}</p>
      <p className={`text-[15px] font-medium ${good ? 'text-green' : 'text-red'}`}>
        {good
          ? '✓ The piece comes out as asked.'
          : [
              ...misses.map(
                ({ dimension, offMm }) =>
                  `✕ The piece is ${lengthText(Math.abs(offMm), display)} ${OVER[dimension][offMm > 0 ? 0 : 1]}.`,
              ),
              ...(fewer > 0 ? [`✕ ${counted(fewer, 'piece')} fewer come out.`] : []),
            ].join(' ')}
      </p>
      <dl className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,200px),1fr))] gap-x-4 text-[15px]">
        <Cost name="Wood">{woodMm3 > LEAST.mm3 ? `${amountOf(woodMm3, display)} more` : 'none more'}</Cost>
        <Cost name="Work">
          {minutes >= LEAST.minutes
            ? `${minutesText(minutes)} more`
            : minutes <= -LEAST.minutes
              ? `${minutesText(-minutes)} less`
              : 'none more'}
        </Cost>
        <Cost name="Ready">
          {when(doneAt, now, zone)}
          {Math.abs(later) > LEAST.ms && `, was ${when(wasDoneAt, now, zone)}`}
        </Cost>
      </dl>
      {steps.length > 0 && (
        <p className="text-graphite text-[14px]">
          {counted(steps.length, 'new step')}: {steps.join(' · ')}
        </p>
      )}
      {raised.map((finding) => (
        <p key={`${finding.code} ${finding.step}`} className="text-red text-[14px]">
          ⚠ {phraseText(finding.message, display)}
        </p>
      ))}
      <button
        type="button"
        className="action mt-1 h-12 self-start px-5 text-[16px]"
        aria-label={`Take this way: ${label}`}
        onClick={onTake}
      >
        Take this way
      </button>
    </li>
  );
}

const Cost = ({ name, children }: { name: string; children: React.ReactNode }) => (
  <div className="border-line flex justify-between gap-3 border-b border-dotted py-0.5">
    <dt>{name}</dt>
    <dd className="rule text-right">{children}</dd>
  </div>
);
