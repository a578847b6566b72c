import type { StepBase } from '../../document';
import type { StepRoom } from '../room';

/** Scrapes or sands the faces for the finish; sizes pass through. */
export interface SurfaceStep extends StepBase {
  kind: 'surface';
  settings?: Record<string, unknown>;
}

/** The room of surface. */
export const surface: StepRoom<SurfaceStep> = {
  kind: 'surface',
  name: 'Surface',
  group: 'Surface',
  says: 'Scrapes or sands the faces for the finish; sizes pass through.',
  fields: {
    settings: { is: 'plain', optional: true },
  },
  flow: {},
  begin: () => ({}),
  needs: () => [{ what: 'supply', kind: 'abrasive' }],
  run: undefined,
  needsSettled: true,
  keepsOutline: true,
  labour: { setUp: 10, each: 40 },
};

declare module '../../document/step' {
  interface StepKinds {
    surface: SurfaceStep;
  }
}
