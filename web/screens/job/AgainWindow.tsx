import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { JobReply } from '../../../contract/api';
import { copyName, DIMENSIONS, type DimensionName, isRefused, phraseText } from '../../../core/document';
import type { ShopSnapshot } from '../../../core/kit';
import { run } from '../../../core/run';
import { counted, type Length } from '../../../core/units';
import { another, onePart, type OtherSizes } from '../../../core/view';
import { speciesName } from '../../../core/wood/common';
import { problemText, useNewJobMutation } from '../../app/api';
import { useDisplay } from '../../app/display';
import { newId } from '../../app/ids';
import { useNotes } from '../../app/notes';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Toggle } from '../../parts/Toggle';
import { Window } from '../../parts/Window';
import { Words } from '../../parts/Words';
import { hasPhoto, Picture } from '../notes/Picture';

const WAYS = [
  { value: 'same', label: 'The same size' },
  { value: 'other', label: 'Another size' },
  { value: 'part', label: 'One part of it' },
] as const;
type Way = (typeof WAYS)[number]['value'];

const SAME_MM = 1e-4;

/** Makes a piece again: the same, in another size, or one part of it; what will be different is listed before it is made. */
export function AgainWindow({
  job,
  kit,
  onClose,
}: {
  job: JobReply;
  kit: ShopSnapshot;
  onClose: () => void;
}) {
  const { build } = job;
  const display = useDisplay();
  const navigate = useNavigate();
  const [newJob, { isLoading }] = useNewJobMutation();
  const [way, setWay] = useState<Way>('same');
  const [problem, setProblem] = useState<string>();
  const finished = useMemo(() => run(build).finished?.greatest, [build]);
  const first = useMemo(
    () =>
      Object.fromEntries(
        DIMENSIONS.map((dimension, axis) => [
          dimension,
          build.brief?.[dimension].value ??
            build.targets[0]?.[dimension].value ?? { mm: finished?.[axis] ?? 0 },
        ]),
      ) as Record<DimensionName, Length>,
    [build, finished],
  );
  const [sizes, setSizes] = useState(first);
  const strips = build.assemblies.flatMap(({ name, slots }) =>
    slots.map((slot, i) => ({
      value: slot.id,
      label: `${build.assemblies.length > 1 ? `${name}, ` : ''}strip ${i + 1}, ${speciesName(slot.species)}`,
    })),
  );
  const of = useMemo(() => ({ job: job.id }), [job.id]);
  const earlier = useNotes(of).notes.findLast((note) => !note.removed && hasPhoto(note));
  const [strip, setStrip] = useState(strips[0]?.value ?? '');
  const name = copyName(build.name, [build.name]).replace(/, copy/, way === 'part' ? ', part' : ', again');
  const made = useMemo(() => {
    if (way === 'part') return onePart(build, kit, { strip, name, job: job.id });
    const changed: OtherSizes =
      way === 'same'
        ? {}
        : Object.fromEntries(
            DIMENSIONS.filter(
              (dimension) => Math.abs(sizes[dimension].mm - first[dimension].mm) > SAME_MM,
            ).map((dimension) => [dimension, { aim: 'fixed', value: sizes[dimension] }]),
          );
    return another(build, kit, { name, sizes: changed, job: job.id });
  }, [build, job.id, kit, name, way, sizes, first, strip]);
  const refusal =
    made === undefined
      ? 'No strip was chosen.'
      : isRefused(made)
        ? phraseText(made.refused, display)
        : undefined;
  const make = async () => {
    if (made === undefined || isRefused(made)) return;
    const { data, error } = await newJob({ build: made.build, write: newId() });
    setProblem(error === undefined ? undefined : problemText(error));
    if (data) navigate(`/jobs/${data.id}`);
  };
  return (
    <Window
      title="Make it again"
      wide
      open
      description="A new job without boards, ticks, times and readings, with the shop as it is now. This one stays as it is."
      onClose={onClose}
    >
      <div className="flex flex-col gap-4">
        <Toggle label="What is made" value={way} options={WAYS} onChange={setWay} />
        {way === 'other' && (
          <div className="flex flex-wrap gap-3">
            {DIMENSIONS.map((dimension) => (
              <LengthField
                key={dimension}
                label={`New ${dimension}`}
                value={sizes[dimension]}
                display={display}
                className="w-32"
                onChange={(value) => setSizes({ ...sizes, [dimension]: value })}
              />
            ))}
          </div>
        )}
        {way === 'part' && (
          <Choice
            label="Which part"
            value={strip}
            options={strips}
            onChange={setStrip}
            className="max-w-[420px]"
          />
        )}
        {earlier && (
          <figure className="max-w-60">
            <Picture note={earlier} alt={`${build.name}, as it was`} size="small" className="w-full" />
            <figcaption className="text-graphite text-[13px]">
              As it was: {earlier.words || 'the last photo'}
            </figcaption>
          </figure>
        )}
        {refusal === undefined && made && !isRefused(made) ? (
          <section aria-label="What will be different">
            <h3 className="font-semibold">
              What will be different
              {made.differences.length > 0 && `, ${counted(made.differences.length, 'line')}`}
            </h3>
            {made.differences.length === 0 ? (
              <p className="text-[14.5px]">
                Nothing: the same work, from its beginning, with the shop as it was.
              </p>
            ) : (
              <ul className="max-h-64 list-disc overflow-y-auto pl-5 text-[14.5px]" tabIndex={0}>
                {made.differences.map((line, i) => (
                  <li key={i} data-difference>
                    <Words phrase={line} display={display} />
                  </li>
                ))}
              </ul>
            )}
            {made.lost.length > 0 && (
              <p className="text-brass pt-2 text-[14px]">
                Not kept of what was put in by hand: {made.lost.join(', ')}.
              </p>
            )}
          </section>
        ) : (
          <p role="alert" className="text-red">
            {refusal}
          </p>
        )}
        {problem !== undefined && (
          <p role="alert" className="text-red">
            {problem}
          </p>
        )}
        <button
          type="button"
          className="action action-main self-start"
          disabled={refusal !== undefined || isLoading}
          onClick={() => void make()}
        >
          Make this job
        </button>
      </div>
    </Window>
  );
}
