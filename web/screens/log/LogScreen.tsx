import { useSearchParams } from 'react-router';
import { Bar, Screen } from '../../parts/layout';
import { Toggle } from '../../parts/Toggle';
import { Costs } from './Costs';
import { Losses } from './Losses';
import { Lines } from './Lines';
import { Troubles } from './Troubles';

const VIEWS = [
  { value: 'losses', label: 'Losses' },
  { value: 'readings', label: 'Readings' },
  { value: 'troubles', label: 'Failures' },
  { value: 'costs', label: 'Costs' },
] as const;
type View = (typeof VIEWS)[number]['value'];

/** The log of the shop: what its readings teach, the readings themselves, and what goes wrong here. */
export function LogScreen() {
  const [params, setParams] = useSearchParams();
  const view: View = VIEWS.find(({ value }) => value === params.get('view'))?.value ?? 'losses';
  return (
    <Screen className="flex flex-col gap-4">
      <Bar>
        <h1 className="mr-3 text-[20px] font-semibold">Log</h1>
        <Toggle
          label="What is shown of the log"
          hideLabel
          value={view}
          options={VIEWS}
          onChange={(next) => setParams({ view: next }, { replace: true })}
        />
      </Bar>
      {view === 'losses' && <Losses />}
      {view === 'readings' && <Lines />}
      {view === 'troubles' && <Troubles />}
      {view === 'costs' && <Costs />}
    </Screen>
  );
}
