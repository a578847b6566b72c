import { useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import { featureName, type FeatureStep } from '../../../core/steps';
import { lazily } from '../../parts/lazily';
import { useFeatures } from './use-features';
import { FeatureFacts } from './FeatureFacts';

const FeaturesWindow = lazily(() => import('./FeaturesWindow'), 'FeaturesWindow');

/** What a step cuts, each with what is left around it; planned on a drawing in a window of its own. */
export function FeatureList({ build, step }: { build: BuildDocument; step: FeatureStep }) {
  const known = useFeatures(build, step.id);
  const sheet = known?.sheet;
  const [open, setOpen] = useState<{ first?: string }>();
  return (
    <>
      <ol className="text-[14.5px]">
        {step.features.map((feature, i) => (
          <li key={feature.id} className="border-line border-b border-dotted">
            <button
              type="button"
              className="hover:text-chalk flex min-h-8 w-full flex-wrap items-baseline gap-x-2 py-1 text-left max-desk:min-h-11"
              onClick={() => setOpen({ first: feature.id })}
            >
              <span className="font-medium">
                {i + 1}. {featureName(feature)}
              </span>
              <FeatureFacts row={sheet?.features.find(({ id }) => id === feature.id)} />
            </button>
          </li>
        ))}
      </ol>
      {step.features.length === 0 && <p className="text-graphite text-[14px]">Nothing yet.</p>}
      {known?.why && (
        <p role="status" className="text-red text-[14px]">
          {known.why}
        </p>
      )}
      <button type="button" className="action mt-2" disabled={!sheet} onClick={() => setOpen({})}>
        Plan on the drawing
      </button>
      {open && sheet && (
        <FeaturesWindow
          build={build}
          step={step}
          sheet={sheet}
          first={open.first}
          onClose={() => setOpen(undefined)}
        />
      )}
    </>
  );
}
