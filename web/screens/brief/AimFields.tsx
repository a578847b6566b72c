import type { Aim } from '../../../core/document';
import type { Display } from '../../../core/units';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';

const AIMS = [
  { value: 'fixed', label: 'exactly' },
  { value: 'atLeast', label: 'at least' },
  { value: 'atMost', label: 'at most' },
  { value: 'free', label: 'free' },
];

/** What is wanted of one dimension: exactly, at least, at most, or free. */
export function AimFields({
  title,
  aim,
  display,
  onChange,
}: {
  title: string;
  aim: Aim;
  display: Display;
  onChange: (aim: Aim) => void;
}) {
  return (
    <div className="grid grid-cols-2 items-end gap-3">
      <Choice
        label={title}
        value={aim.aim}
        options={AIMS}
        onChange={(next) => onChange({ ...aim, aim: next as Aim['aim'] })}
      />
      {aim.aim !== 'free' && (
        <LengthField
          label={`${title}, finished`}
          value={aim.value ?? { mm: 0 }}
          display={display}
          rule={{ minMm: 1, maxMm: 10_000 }}
          onChange={(value) => onChange({ ...aim, value })}
        />
      )}
    </div>
  );
}
