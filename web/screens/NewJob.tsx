import { yupResolver } from '@hookform/resolvers/yup';
import { useDeferredValue, useMemo, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { Link, useNavigate, useSearchParams } from 'react-router';
import * as yup from 'yup';
import { type Brief, type BuildDocument, isRefused, phraseText } from '../../core/document';
import type { ShopSnapshot } from '../../core/kit';
import { fit, freeJob, patternOf, PATTERNS, startingBrief } from '../../core/plan';
import { problemText, useKitQuery, useNewJobMutation } from '../app/api';
import { useDisplay } from '../app/display';
import { useWriteOnce } from '../app/write-once';
import { useReports } from '../parts/reported';
import { PlanView } from './PlanView';
import { BriefFields } from './brief/BriefFields';
import { PatternPicker } from './brief/PatternPicker';
import { Bar, Screen } from '../parts/layout';

interface About {
  name: string;
  use: string;
}

const schema = yup.object({
  name: yup.string().trim().required('a job needs a name').max(120, 'at most 120 letters'),
});

/** A new job begins with a brief; Junta answers with a build that comes out exactly at it. */
export function NewJob() {
  const { data: kit, error } = useKitQuery();
  if (error !== undefined)
    return (
      <p role="alert" className="text-red p-8">
        {problemText(error)}
      </p>
    );
  return kit ? <BriefForm shop={kit.shop} /> : <p className="text-graphite p-8">Reading the kit …</p>;
}

function BriefForm({ shop }: { shop: ShopSnapshot }) {
  const display = useDisplay();
  const navigate = useNavigate();
  const [newJob, sending] = useNewJobMutation();
  const write = useWriteOnce();
  const [search] = useSearchParams();
  const asked = PATTERNS.find(({ id }) => id === search.get('pattern'))?.id ?? 'panel';
  const [brief, setBrief] = useState<Brief>(() => startingBrief(asked, shop));
  const {
    control,
    register,
    handleSubmit,
    setValue,
    formState: { errors, dirtyFields },
  } = useForm<About>({
    resolver: yupResolver(schema) as never,
    defaultValues: { name: `New ${patternOf(asked).name.toLowerCase()}`, use: '' },
    mode: 'onChange',
  });
  const about = useWatch({ control });
  const { reasons, collect } = useReports();
  const wanted = useDeferredValue(brief);
  const plan = useMemo(
    () => fit(wanted, shop, { name: about.name?.trim() || 'New job', use: about.use?.trim() ?? '' }),
    [wanted, shop, about.name, about.use],
  );
  const send = async (build: BuildDocument) => {
    const result = await newJob({ build, write: write.of(build) });
    if (!result.data) return;
    write.done();
    void navigate(`/jobs/${result.data.id}`);
  };
  const make = handleSubmit(async () => {
    const made = fit(brief, shop, { name: about.name?.trim() ?? '', use: about.use?.trim() ?? '' });
    if (!isRefused(made)) await send(made);
  });
  const makeFree = handleSubmit(async () => {
    const name = dirtyFields.name ? (about.name?.trim() ?? '') : 'New job';
    await send(freeJob(shop, { name, use: about.use?.trim() ?? '' }));
  });
  return (
    <Screen>
      <div className="@container">
        <div className="flex flex-col gap-5 @min-[60rem]:flex-row">
          <form
            id="brief"
            onSubmit={make}
            className="sheet flex w-full shrink-0 flex-col gap-3 p-5 max-desk:p-3 @min-[60rem]:w-[430px]"
            noValidate
            onKeyDown={(event) => {
              // Enter settles a field; the job is made with its button.
              if (event.key === 'Enter' && event.target instanceof HTMLInputElement) event.preventDefault();
            }}
          >
            <div className="flex items-baseline justify-between">
              <h1 className="text-[20px] font-semibold">New job</h1>
              <Link className="press text-chalk text-[14px] underline" to="/patterns">
                All patterns as wood
              </Link>
            </div>
            <PatternPicker
              value={brief.pattern}
              onChange={(pattern) => {
                const { saw, flattenWith, trimWith, allowances } = brief;
                setBrief(startingBrief(pattern, shop, { saw, flattenWith, trimWith, allowances }));
                if (!dirtyFields.name) setValue('name', `New ${patternOf(pattern).name.toLowerCase()}`);
              }}
            />
            <p className="text-graphite text-[13.5px]">{patternOf(brief.pattern).about}</p>
            <div className="grid grid-cols-2 gap-3">
              <label className="label block">
                Name
                <input
                  className="field mt-0.5 w-full font-sans!"
                  {...register('name')}
                  aria-invalid={errors.name !== undefined}
                />
                {errors.name && (
                  <span role="alert" className="text-red block">
                    {errors.name.message}
                  </span>
                )}
              </label>
              <label className="label block">
                What for
                <input className="field mt-0.5 w-full font-sans!" maxLength={400} {...register('use')} />
              </label>
            </div>
            {collect(
              <BriefFields
                key={brief.pattern}
                brief={brief}
                shop={shop}
                display={display}
                onChange={(change) => setBrief((before) => ({ ...before, ...change }))}
              />,
            )}
          </form>
          <section
            aria-label="Plan"
            className="sheet flex w-full min-w-0 flex-1 flex-col gap-3 self-start p-5 max-desk:p-3 @min-[60rem]:sticky @min-[60rem]:top-14"
          >
            <Bar>
              <button
                type="submit"
                form="brief"
                className="action action-main"
                disabled={isRefused(plan) || sending.isLoading || reasons.length > 0}
              >
                Make this job
              </button>
              <button
                type="button"
                className="action"
                disabled={sending.isLoading}
                onClick={() => void makeFree()}
              >
                Begin without a pattern
              </button>
              {sending.error !== undefined && (
                <p role="alert" className="text-red">
                  {problemText(sending.error)}
                </p>
              )}
            </Bar>
            {reasons.length > 0 ? (
              <p className="text-red">Not planned until this can be read. {reasons.join('. ')}.</p>
            ) : !isRefused(plan) ? (
              <PlanView build={plan} display={display} />
            ) : (
              <p role="alert" className="text-red">
                {phraseText(plan.refused, display)}
              </p>
            )}
          </section>
        </div>
      </div>
    </Screen>
  );
}
