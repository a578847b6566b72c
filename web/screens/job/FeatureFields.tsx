import type { BuildDocument } from '../../../core/document';
import {
  bitKindsOf,
  type Feature,
  featureName,
  FROM,
  type Guide,
  kindOf,
  type Place1,
  SIDES_OF_PIECE,
} from '../../../core/steps';
import { useDisplay } from '../../app/display';
import { ProfileDrawing } from '../../drawing/ProfileDrawing';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { type Described, DescribedField } from './DescribedField';
import { PLACE, RowFields } from './RowFields';
import { useSettle } from './use-edit';

/** The settings of one feature: its own, and where it lies. */
export function FeatureFields({
  build,
  feature,
  others,
  joints,
  onChange,
}: {
  build: BuildDocument;
  feature: Feature;
  /** Features before it, which it may be measured from. */
  others: readonly Feature[];
  joints: { u: readonly number[]; v: readonly number[] };
  onChange: (next: Partial<Feature>, mark?: string) => void;
}) {
  const kind = kindOf(feature);
  const face = feature.side === 'upper' || feature.side === 'lower';
  const bits = (build.shop.bits ?? []).filter((bit) => bitKindsOf(feature).includes(bit.kind));
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2.5">
      {Object.entries(kind.fields).map(([name, field]) => (
        <DescribedField
          key={name}
          name={name}
          field={field as Described<Feature>}
          whole={feature}
          onChange={onChange}
        />
      ))}
      <Choice
        label="Cut into"
        value={feature.side}
        options={SIDES_OF_PIECE.filter(({ value }) => !kind.sides || kind.sides.includes(value))}
        onChange={(side) => onChange({ side: side as Feature['side'] })}
      />
      {bits.length > 0 && (
        <Choice
          label="Cutter or drill"
          value={feature.bit ?? ''}
          options={[
            { value: '', label: 'Any that fits' },
            ...bits.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(bit) => onChange({ bit: bit || undefined })}
        />
      )}
      {feature.kind === 'edge' && feature.which !== 'corners' && (
        <ProfileDrawing profile={feature.profile} size={feature.size.mm} step={feature.step?.mm ?? 0} />
      )}
      {kind.by !== 'saw' && (
        <GuideFields feature={feature} drilled={kind.by === 'drill'} onChange={onChange} />
      )}
      {kind.placed && (
        <>
          <PlaceFields
            title="Along"
            along="u"
            place={feature.u}
            others={others}
            joints={joints.u}
            edges={
              face || feature.side === 'near' || feature.side === 'far'
                ? ['Left end', 'Right end']
                : ['Near edge', 'Far edge']
            }
            onChange={(u, mark) => onChange({ u }, mark)}
          />
          <PlaceFields
            title="Across"
            along="v"
            place={feature.v}
            others={others}
            joints={joints.v}
            edges={face ? ['Near edge', 'Far edge'] : ['Lower face', 'Upper face']}
            onChange={(v, mark) => onChange({ v }, mark)}
          />
          <RowFields feature={feature} onChange={onChange} />
        </>
      )}
    </div>
  );
}

/** A place along one direction: from what, and how far. */
function PlaceFields({
  title,
  along,
  place,
  others,
  joints,
  edges,
  onChange,
}: {
  title: string;
  along: 'u' | 'v';
  place: Place1;
  others: readonly Feature[];
  joints: readonly number[];
  edges: readonly [string, string];
  onChange: (place: Place1, mark?: string) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const options = FROM.filter(
    ({ value }) =>
      value === place.from ||
      ((value !== 'joint' || joints.length > 0) && (value !== 'feature' || others.length > 0)),
  ).map(({ value, label }) => ({
    value,
    label: value === 'low' ? edges[0] : value === 'high' ? edges[1] : label,
  }));
  return (
    <fieldset className="col-span-full grid grid-cols-2 items-end gap-x-3 gap-y-2">
      <legend className="sr-only">{title}</legend>
      <Choice
        label={`${title}, measured from`}
        value={place.from}
        options={options}
        onChange={(from) =>
          onChange({
            from: from as Place1['from'],
            by: place.by,
            ...(from === 'joint' ? { joint: 1 } : {}),
            ...(from === 'feature' ? { feature: others[0]?.id } : {}),
          })
        }
      />
      {place.from === 'joint' && (
        <CountField
          label={`${title}, joint number`}
          value={place.joint ?? 1}
          most={Math.max(1, joints.length)}
          onChange={(joint) => onChange({ ...place, joint })}
        />
      )}
      {place.from === 'feature' && (
        <Choice
          label={`${title}, which feature`}
          value={place.feature ?? ''}
          options={others.map((each, i) => ({ value: each.id, label: `${i + 1}. ${featureName(each)}` }))}
          onChange={(id) => onChange({ ...place, feature: id })}
        />
      )}
      <LengthField
        label={`${title}, to its middle`}
        value={place.by}
        display={display}
        rule={PLACE}
        onChange={(by) => onChange({ ...place, by }, along)}
        onSettled={settle}
      />
    </fieldset>
  );
}

/** What a template with a bushing begins with: 5/8, 17/32 and 1/2 of an inch, or 16, 14 and 12 mm. */
const USUAL_GUIDE: Record<'inch' | 'mm', Guide> = {
  inch: { outer: { mm: 15.875 }, inner: { mm: 13.49375 }, thick: { mm: 12.7 } },
  mm: { outer: { mm: 16 }, inner: { mm: 14 }, thick: { mm: 12 } },
};

/** A template or jig with a bushing: its sizes, where one is used. */
function GuideFields({
  feature,
  drilled,
  onChange,
}: {
  feature: Feature;
  drilled: boolean;
  onChange: (next: Partial<Feature>, mark?: string) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const { guide } = feature;
  const length = (label: string, name: keyof Guide) =>
    guide && (
      <LengthField
        label={label}
        value={guide[name]}
        display={display}
        rule={{ minMm: 0.5, maxMm: 200 }}
        onChange={(next) => onChange({ guide: { ...guide, [name]: next } }, `guide.${name}`)}
        onSettled={settle}
      />
    );
  return (
    <fieldset className="col-span-full grid grid-cols-2 items-end gap-x-3 gap-y-2">
      <legend className="sr-only">Template or jig</legend>
      <label className="col-span-full flex items-center gap-2 text-[14px] max-desk:min-h-11">
        <input
          type="checkbox"
          className="accent-chalk h-4 w-4"
          checked={guide !== undefined}
          onChange={({ target }) =>
            onChange({
              guide: target.checked ? USUAL_GUIDE[display.system] : undefined,
            })
          }
        />
        {drilled ? 'Drilled through the bushing of a jig' : 'Along a template, with a bushing'}
      </label>
      {!drilled && length('Bushing, outer diameter', 'outer')}
      {length('Bushing, inner diameter', 'inner')}
      {length(drilled ? 'Bushing, length' : 'Template, thickness', 'thick')}
    </fieldset>
  );
}
