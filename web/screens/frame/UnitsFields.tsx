import type { Display } from '../../../core/units';
import { changeKit } from '../../app/kit';
import { Toggle } from '../../parts/Toggle';

/** How the whole shop reads numbers. */
export function UnitsFields({ display }: { display: Display }) {
  const set = (change: Partial<Display>) =>
    changeKit((shop) => ({ ...shop, display: { ...shop.display, ...change } }));
  return (
    <>
      <Toggle
        label="The shop measures in"
        value={display.system}
        onChange={(system) => set({ system })}
        options={[
          { value: 'inch', label: 'inches' },
          { value: 'mm', label: 'millimetres' },
        ]}
      />
      {display.system === 'inch' && (
        <Toggle
          label="Shown to"
          value={String(display.fraction)}
          onChange={(fraction) => set({ fraction: Number(fraction) as Display['fraction'] })}
          options={[16, 32, 64]
            .map((f) => ({ value: String(f), label: `1/${f}` }))
            .concat({ value: '0', label: 'decimal' })}
        />
      )}
      <p className="text-graphite max-w-60 text-[13px]">
        Areas, volumes, masses and temperatures go along. What was typed in the other system comes back as
        typed.
      </p>
    </>
  );
}
