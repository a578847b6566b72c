import { useMemo } from 'react';
import { Link } from 'react-router';
import type { ShopSnapshot } from '../../core/kit';
import { isRefused, phraseText } from '../../core/document';
import { fit, type Pattern, PATTERNS, startingBrief } from '../../core/plan';
import { problemText, useKitQuery } from '../app/api';
import { JobPicture } from '../drawing/JobPicture';
import { Columns, Screen } from '../parts/layout';

/** Every pattern as it comes out of this shop to begin with; each begins a job. */
export function Patterns() {
  const { data: kit, error } = useKitQuery();
  if (error !== undefined)
    return (
      <p role="alert" className="text-red p-8">
        {problemText(error)}
      </p>
    );
  if (!kit) return <p className="text-graphite p-8">Reading the kit …</p>;
  return (
    <Screen className="py-3">
      <h1 className="pb-2 text-[20px] font-semibold">Patterns</h1>
      <Columns list least={9.5} most={6} className="gap-y-3">
        {PATTERNS.filter(({ id }) => id !== 'ownRule').map((pattern) => (
          <Entry key={pattern.id} pattern={pattern} shop={kit.shop} />
        ))}
      </Columns>
    </Screen>
  );
}

function Entry({ pattern, shop }: { pattern: Pattern; shop: ShopSnapshot }) {
  const plan = useMemo(
    () => fit(startingBrief(pattern.id, shop), shop, { name: pattern.name, use: '' }),
    [pattern, shop],
  );
  return (
    <li>
      <Link
        to={`/jobs/new?pattern=${pattern.id}`}
        title={pattern.about}
        className="hover:text-chalk flex flex-col gap-1 text-[14px] font-medium"
      >
        <span className="block h-[178px]">
          {!isRefused(plan) ? (
            <JobPicture build={plan} view={pattern.group === 'Layers' ? 'turning' : 'face'} />
          ) : (
            <span className="text-graphite text-[13px] font-normal">
              {phraseText(plan.refused, shop.display)}
            </span>
          )}
        </span>
        {pattern.name}
      </Link>
    </li>
  );
}
