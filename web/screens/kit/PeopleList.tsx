import { hoursText } from '../../../core/bench';
import { gluingOf, LIFTS_KG, type Person, type ShopSnapshot } from '../../../core/kit';
import { dialled } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { freshId } from '../../app/ids';
import { Tick } from '../../parts/Tick';
import { HoursFields } from './HoursFields';
import { Section, Under } from './KitFields';
import { AddButton, changed, LabelNumber, RemoveButton, without } from './TableParts';
import { Columns } from '../../parts/layout';

/** Who works in the shop: what each may run, and lifts alone. Names stay in the shop; no job's file carries them. */
export function PeopleList({
  shop,
  onChange,
}: {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}) {
  const people = shop.people ?? [];
  const mass = dialled('mass', useDisplay());
  const set = (next: Person[]) => {
    const { people: _before, ...bare } = shop;
    onChange(next.length > 0 ? { ...bare, people: next } : bare);
  };
  const one = (at: number, part: { [K in keyof Person]?: Person[K] | undefined }) =>
    set(changed(people, at, part));
  const tools = [...shop.saws, ...shop.machines].map(({ id, name }) => ({ id, name }));
  const all = tools.map(({ id }) => id);
  return (
    <Section
      title="People"
      says="Who works here. At the bench each step can say who did it, and warns where somebody may not run its machine or lifts less than the piece weighs. The calendar plans work for when somebody is here who may do it."
    >
      <ul className="flex flex-col gap-3">
        {people.map((person, i) => (
          <li key={person.id} className="border-line flex flex-wrap items-end gap-x-3 gap-y-2 border-b pb-3">
            <Under name="Name">
              <input
                aria-label={`Name of person ${i + 1}`}
                className="field w-48 font-sans!"
                value={person.name}
                maxLength={60}
                onChange={(event) => event.target.value && one(i, { name: event.target.value })}
              />
            </Under>
            <Under name={`Lifts alone, ${mass.unit}`}>
              <LabelNumber
                label={`${person.name}, lifts alone, ${mass.unit}`}
                value={person.liftKg === undefined ? undefined : mass.shown(person.liftKg)}
                least={Math.ceil(mass.shown(LIFTS_KG.least))}
                most={Math.floor(mass.shown(LIFTS_KG.most))}
                placeholder="–"
                onChange={(typed) => one(i, { liftKg: typed === undefined ? undefined : mass.stored(typed) })}
              />
            </Under>
            <RemoveButton name={person.name} onRemove={() => set(without(people, i))} />
            <details className="w-full">
              <summary className="label cursor-pointer">
                {person.runs ? `May run ${person.runs.length} of ${tools.length}` : 'May run all of them'}
              </summary>
              <Columns least={12} most={3} className="gap-y-0">
                {tools.map(({ id, name }) => (
                  <Tick
                    key={id}
                    label={name}
                    checked={person.runs?.includes(id) ?? true}
                    onChange={(may) => {
                      const now = person.runs ?? all;
                      const next = may ? [...now, id] : now.filter((each) => each !== id);
                      one(i, { runs: all.every((each) => next.includes(each)) ? undefined : next });
                    }}
                  />
                ))}
              </Columns>
            </details>
            <details className="w-full">
              <summary className="label cursor-pointer">
                {person.hours ? `Here ${hoursText(person.hours)}` : 'Here whenever the shop works'}
              </summary>
              <div role="group" aria-label={`Hours of ${person.name}`} className="flex flex-col gap-2 pt-1">
                <Tick
                  label="Has hours of their own"
                  checked={person.hours !== undefined}
                  onChange={(own) => {
                    const { days, from, to } = gluingOf(shop).hours;
                    one(i, { hours: own ? { days, from, to } : undefined });
                  }}
                />
                {person.hours && <HoursFields hours={person.hours} onChange={(hours) => one(i, { hours })} />}
              </div>
            </details>
          </li>
        ))}
      </ul>
      <AddButton
        onAdd={() => set([...people, { id: freshId('person', people), name: `Person ${people.length + 1}` }])}
      >
        Add a person
      </AddButton>
    </Section>
  );
}
