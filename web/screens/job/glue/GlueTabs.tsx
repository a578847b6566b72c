import type { Finding } from '../../../../core/document';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { GLUE_VIEWS } from './views';

/** Which part of a glue-up is looked at; a red mark and its count where something will not work. */
export function GlueTabs({ findings }: { findings: readonly Finding[] }) {
  const dispatch = useAppDispatch();
  const view = useAppSelector(({ job }) => job.glueView);
  return (
    <div role="tablist" aria-label="Glue-up" className="border-line -mx-4 flex border-b px-3">
      {GLUE_VIEWS.map(({ id, name, codes }, i) => {
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
              const next = GLUE_VIEWS[(i + by + GLUE_VIEWS.length) % GLUE_VIEWS.length];
              dispatch(jobActions.glueViewed(next.id));
              (
                event.currentTarget.parentElement?.children[GLUE_VIEWS.indexOf(next)] as
                  | HTMLElement
                  | undefined
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
