import { useId } from 'react';
import type { PatternId } from '../../../core/document';
import { PATTERNS } from '../../../core/plan';
import { PatternSketch } from '../../drawing/PatternSketch';

const GROUPS = [...new Set(PATTERNS.map(({ group }) => group))];

/** Every pattern with a small drawing of it, in its group; one is chosen. */
export function PatternPicker({
  value,
  onChange,
}: {
  value: PatternId;
  onChange: (pattern: PatternId) => void;
}) {
  const name = useId();
  return (
    <div role="radiogroup" aria-label="What is it" className="flex flex-col gap-2">
      {GROUPS.map((group) => (
        <fieldset key={group} className="flex flex-wrap gap-1">
          <legend className="label pb-0.5">{group}</legend>
          {PATTERNS.filter((pattern) => pattern.group === group).map((pattern) => (
            <label
              key={pattern.id}
              title={pattern.about}
              className={`has-[:focus-visible]:outline-chalk relative flex w-[73px] cursor-pointer flex-col items-center gap-1 rounded border px-1 pt-1.5 pb-1 text-center text-[11.5px] leading-tight has-[:focus-visible]:outline-2 ${pattern.id === value ? 'border-chalk bg-chalk-wash text-chalk font-medium' : 'border-line bg-white'}`}
            >
              <input
                type="radio"
                name={name}
                className="absolute inset-0 cursor-pointer opacity-0"
                checked={pattern.id === value}
                onChange={() => onChange(pattern.id)}
              />
              <PatternSketch id={pattern.id} />
              {pattern.name}
            </label>
          ))}
        </fieldset>
      ))}
    </div>
  );
}
