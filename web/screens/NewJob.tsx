import { yupResolver } from '@hookform/resolvers/yup';
import { Plus, X } from 'lucide-react';
import { useMemo } from 'react';
import { Controller, useFieldArray, useForm, useWatch, type Control } from 'react-hook-form';
import { useNavigate } from 'react-router';
import * as yup from 'yup';
import { fit, type Aim, type Brief, type BuildDocument } from '../../core/build';
import type { ShopSnapshot } from '../../core/kit';
import { lengthText, type Display, type Length } from '../../core/units';
import { SPECIES } from '../../core/wood/species';
import { problemText, useKitQuery, useNewJobMutation } from '../app/api';
import { useDisplay } from '../app/display';
import { Choice, Toggle } from '../parts/Choice';
import { LengthField } from '../parts/LengthField';
import { Swatch } from '../parts/Swatch';
import { PlanView } from './PlanView';

interface Form {
  name: string;
  use: string;
  pattern: Brief['pattern'];
  length: Aim;
  width: Aim;
  thickness: Aim;
  module: Length;
  woods: { id: string }[];
  saw: string;
  flattenWith: string;
  trimWith: string;
  chequer: 'yes' | 'no';
}

const schema = yup.object({
  name: yup.string().trim().required('a job needs a name').max(120, 'at most 120 letters'),
});
const AIMS = [
  { value: 'fixed', label: 'exactly' },
  { value: 'atLeast', label: 'at least' },
  { value: 'atMost', label: 'at most' },
  { value: 'free', label: 'free' },
];
const WOODS = SPECIES.map(({ id, common }) => ({ value: id, label: common, mark: <Swatch species={id} /> }));
const inch = (value: number, text: string): Length => ({ mm: value * 25.4, typed: { text, system: 'inch' } });
const START: Form = {
  name: 'New panel',
  use: '',
  pattern: 'panel',
  length: { aim: 'fixed', value: inch(32, '32') },
  width: { aim: 'fixed', value: inch(11.5, '11 1/2') },
  thickness: { aim: 'fixed', value: inch(0.875, '7/8') },
  module: inch(2.25, '2 1/4'),
  woods: [{ id: 'cherry_black' }],
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: 'saw:table-full',
  chequer: 'yes',
};
const BLOCK: Partial<Form> = {
  name: 'New block',
  length: { aim: 'fixed', value: inch(15, '15') },
  width: { aim: 'fixed', value: inch(10, '10') },
  thickness: { aim: 'fixed', value: inch(1.625, '1 5/8') },
  module: inch(1.25, '1 1/4'),
  woods: [{ id: 'walnut_black' }, { id: 'maple_sugar' }],
};

const briefOf = (form: Form): Brief => {
  const [kind, id] = form.trimWith.split(':');
  const { pattern, length, width, thickness, module, saw, flattenWith } = form;
  return {
    pattern,
    length,
    width,
    thickness,
    module,
    saw,
    flattenWith,
    trimWith: kind === 'saw' ? { saw: id } : { machine: id },
    woods: form.woods.map((w) => w.id),
    chequer: form.chequer === 'yes',
    extraSlices: 0,
    sections: 0,
  };
};

type Plan = { build: BuildDocument; reason?: undefined } | { build?: undefined; reason: string };
const planFor = (form: Form, shop: ShopSnapshot): Plan => {
  try {
    return { build: fit(briefOf(form), shop, { name: form.name.trim() || 'New job', use: form.use.trim() }) };
  } catch (error) {
    return { reason: (error as Error).message };
  }
};

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
  const known = (id: string, list: readonly { id: string }[]) =>
    list.some((item) => item.id === id) ? id : (list[0]?.id ?? '');
  const defaults: Form = {
    ...START,
    saw: known(START.saw, shop.saws),
    flattenWith: known(START.flattenWith, shop.machines),
    trimWith: `saw:${known(START.saw, shop.saws)}`,
  };
  const {
    control,
    register,
    handleSubmit,
    reset,
    getValues,
    formState: { errors },
  } = useForm<Form>({ resolver: yupResolver(schema) as never, defaultValues: defaults, mode: 'onChange' });
  const woods = useFieldArray({ control, name: 'woods' });
  // Fields that a reset has not reached yet are missing from the watched values for a moment.
  const form = { ...defaults, ...useWatch({ control }) } as Form;
  const key = JSON.stringify(form);
  const plan = useMemo(() => planFor(JSON.parse(key) as Form, shop), [key, shop]);
  const make = handleSubmit(async () => {
    if (!plan.build) return;
    const result = await newJob(plan.build);
    if (result.data) void navigate(`/jobs/${result.data.id}`);
  });
  const block = form.pattern === 'endGrain';
  return (
    <main className="mx-auto flex max-w-[1240px] gap-5 px-5 py-4">
      <form
        id="brief"
        onSubmit={make}
        className="sheet flex w-[430px] shrink-0 flex-col gap-3.5 p-5"
        noValidate
      >
        <h1 className="text-[20px] font-semibold">New job</h1>
        <Toggle
          label="What is it"
          value={form.pattern}
          options={[
            { value: 'panel', label: 'Edge-glued panel' },
            { value: 'endGrain', label: 'End-grain block' },
          ]}
          onChange={(pattern) =>
            reset({
              ...getValues(),
              ...(pattern === 'endGrain' ? BLOCK : START),
              pattern,
              saw: form.saw,
              flattenWith: form.flattenWith,
              trimWith: form.trimWith,
              use: form.use,
            })
          }
        />
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
        {(['length', 'width', 'thickness'] as const).map((name) => (
          <AimField key={name} name={name} control={control} display={display} />
        ))}
        <Controller
          control={control}
          name="module"
          render={({ field }) => (
            <LengthField
              label={block ? 'Side of a square, about' : 'Strip width, about'}
              value={field.value}
              display={display}
              rule={{ minMm: 3, maxMm: 1000 }}
              onChange={field.onChange}
            />
          )}
        />
        <fieldset className="flex flex-col gap-1.5">
          <legend className="label pb-0.5">Woods, in turn</legend>
          {woods.fields.map((field, i) => (
            <div key={field.id} className="flex gap-2">
              <Controller
                control={control}
                name={`woods.${i}.id`}
                render={({ field: wood }) => (
                  <Choice
                    label={`Wood ${i + 1}`}
                    hideLabel
                    value={wood.value}
                    options={WOODS}
                    onChange={wood.onChange}
                    className="flex-1"
                  />
                )}
              />
              {woods.fields.length > 1 && (
                <button
                  type="button"
                  className="action px-2"
                  aria-label={`Remove wood ${i + 1}`}
                  onClick={() => woods.remove(i)}
                >
                  <X size={15} />
                </button>
              )}
            </div>
          ))}
          {woods.fields.length < 8 && (
            <button
              type="button"
              className="action self-start"
              onClick={() => woods.append({ id: 'maple_sugar' })}
            >
              <Plus size={15} aria-hidden /> Another wood
            </button>
          )}
        </fieldset>
        {block && (
          <Controller
            control={control}
            name="chequer"
            render={({ field }) => (
              <Toggle
                label="Slices"
                value={field.value}
                onChange={field.onChange}
                options={[
                  { value: 'yes', label: 'Every other end for end' },
                  { value: 'no', label: 'All alike' },
                ]}
              />
            )}
          />
        )}
        <div className="grid grid-cols-2 gap-3">
          <Controller
            control={control}
            name="saw"
            render={({ field }) => (
              <Choice
                label="Saw, and its kerf"
                value={field.value}
                onChange={field.onChange}
                options={shop.saws.map(({ id, name, kerf }) => ({
                  value: id,
                  label: `${name}, ${lengthText(kerf.mm, display)}`,
                }))}
              />
            )}
          />
          <Controller
            control={control}
            name="flattenWith"
            render={({ field }) => (
              <Choice
                label="Flatten the panel with"
                value={field.value}
                onChange={field.onChange}
                options={shop.machines.map(({ id, name }) => ({ value: id, label: name }))}
              />
            )}
          />
        </div>
      </form>
      <section aria-label="Plan" className="sheet flex min-w-0 flex-1 flex-col gap-3 p-5">
        <div className="flex items-center gap-4">
          <button
            type="submit"
            form="brief"
            className="action action-main"
            disabled={!plan.build || sending.isLoading}
          >
            Make this job
          </button>
          {sending.error !== undefined && (
            <p role="alert" className="text-red">
              {problemText(sending.error)}
            </p>
          )}
        </div>
        {plan.build ? (
          <PlanView build={plan.build} display={display} />
        ) : (
          <p role="alert" className="text-red">
            {plan.reason}
          </p>
        )}
      </section>
    </main>
  );
}

function AimField({
  name,
  control,
  display,
}: {
  name: 'length' | 'width' | 'thickness';
  control: Control<Form>;
  display: Display;
}) {
  const title = `${name[0].toUpperCase()}${name.slice(1)}`;
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => {
        const aim = field.value;
        return (
          <div className="grid grid-cols-2 items-start gap-3">
            <Choice
              label={title}
              value={aim.aim}
              options={AIMS}
              onChange={(next) => field.onChange({ ...aim, aim: next })}
            />
            {aim.aim !== 'free' && (
              <LengthField
                label={`${title}, finished`}
                value={aim.value ?? { mm: 0 }}
                display={display}
                rule={{ minMm: 1, maxMm: 10_000 }}
                onChange={(value) => field.onChange({ ...aim, value })}
              />
            )}
          </div>
        );
      }}
    />
  );
}
