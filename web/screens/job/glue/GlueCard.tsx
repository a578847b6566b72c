import type { BuildDocument, Finding } from '../../../../core/document';
import type { PlannedGlueUp } from '../../../../core/glueup';
import type { GlueStep } from '../../../../core/steps';
import { type GlueView, jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { FindingNote } from '../FindingNote';
import { AfterView } from './AfterView';
import { AidsView } from './AidsView';
import { BottleView } from './BottleView';
import { ClampsView } from './ClampsView';
import { PaceView } from './PaceView';

const VIEWS: readonly { id: GlueView; name: string; codes: readonly string[] }[] = [
  { id: 'layUp', name: 'Lay-up', codes: [] },
  {
    id: 'clamps',
    name: 'Clamps',
    codes: [
      'no-clamps',
      'clamps-too-short',
      'too-few-clamps',
      'clamps-dent',
      'thin-end-grain',
      'crowned-edge',
    ],
  },
  { id: 'glue', name: 'Glue', codes: ['no-adhesive', 'adhesive-unsuited', 'glue-short', 'climate-unknown'] },
  { id: 'aids', name: 'Aids', codes: ['aids-needed', 'aid-exposed', 'aids-find-no-place'] },
  { id: 'pace', name: 'Pace', codes: ['slower-than-glue', 'too-heavy'] },
  { id: 'after', name: 'After', codes: [] },
];

/** Which part of a glue-up is looked at; a red mark and its count where something will not work. */
export function GlueTabs({ findings }: { findings: readonly Finding[] }) {
  const dispatch = useAppDispatch();
  const view = useAppSelector(({ job }) => job.glueView);
  return (
    <div role="tablist" aria-label="Glue-up" className="border-line -mx-4 flex border-b px-3">
      {VIEWS.map(({ id, name, codes }, i) => {
        const count = findings.filter(({ code }) => codes.includes(code)).length;
        return (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={view === id}
            tabIndex={view === id ? 0 : -1}
            className={`-mb-px flex items-center gap-1 border-b-2 px-1.5 pb-1 text-[14px] font-medium ${view === id ? 'border-chalk text-chalk' : 'text-graphite hover:text-ink border-transparent'}`}
            onClick={() => dispatch(jobActions.glueViewed(id))}
            onKeyDown={(event) => {
              const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
              if (!by) return;
              event.preventDefault();
              const next = VIEWS[(i + by + VIEWS.length) % VIEWS.length];
              dispatch(jobActions.glueViewed(next.id));
              (
                event.currentTarget.parentElement?.children[VIEWS.indexOf(next)] as HTMLElement | undefined
              )?.focus();
            }}
          >
            {name}
            {count > 0 && (
              <span className="text-red rule text-[12px]" aria-label={`${count} findings`}>
                !{count > 1 ? count : ''}
              </span>
            )}
          </button>
        );
      })}
    </div>
  );
}

/** What belongs to the chosen part of a glue-up: its findings, settings and readings. */
export function GlueCard({
  build,
  step,
  planned,
  findings,
}: {
  build: BuildDocument;
  step: GlueStep;
  planned: PlannedGlueUp;
  findings: readonly Finding[];
}) {
  const view = useAppSelector(({ job }) => job.glueView);
  const codes = VIEWS.find(({ id }) => id === view)?.codes ?? [];
  const shown = findings.filter(({ code }) => codes.includes(code));
  return (
    <>
      {shown.slice(0, 4).map((finding, i) => (
        <FindingNote key={`${finding.code}${i}`} finding={finding} />
      ))}
      {shown.length > 4 && <p className="text-red text-[13.5px]">and {shown.length - 4} more of the kind.</p>}
      {view === 'clamps' && <ClampsView build={build} step={step} planned={planned} />}
      {view === 'glue' && <BottleView build={build} step={step} planned={planned} />}
      {view === 'aids' && <AidsView build={build} step={step} planned={planned} />}
      {view === 'pace' && <PaceView build={build} step={step} planned={planned} />}
      {view === 'after' && <AfterView build={build} step={step} planned={planned} />}
    </>
  );
}
