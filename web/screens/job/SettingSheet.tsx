import type { CSSProperties } from 'react';
import { phraseText } from '../../../core/document';
import type { Display } from '../../../core/units';
import type { SettingSheet as Settings } from '../../../core/view';
import { Letterhead } from '../../parts/Letterhead';
import { Measure } from '../../parts/Measure';
import { Row } from './CardParts';
import { Facts } from './Facts';
import { PassList } from './PassList';

/** One page of what is dialled and measured: passes, cuts in their order, sizes that follow. */
export function SettingSheet({
  title,
  settings,
  room,
  display,
}: {
  title: string;
  settings: Settings;
  /** Width of the page inside its margins, mm. */
  room: number;
  display: Display;
}) {
  return (
    <article
      aria-label={title}
      className="mb-6 box-border w-[calc(var(--room)+10.6mm)] bg-white p-5 shadow print:mb-0 print:w-[var(--room)] print:p-0 print:shadow-none"
      style={{ '--room': `${room}mm` } as CSSProperties}
    >
      <Letterhead />
      <h2 className="pb-2 text-[19px] font-semibold">{title}</h2>
      {settings.steps.map(({ step, title: name, passes, cuts, facts }) => (
        <section key={step} className="break-inside-avoid pb-4">
          <h3 className="pb-1 text-[15px] font-semibold">{name}</h3>
          {passes && <PassList plan={passes} display={display} named={false} />}
          {cuts.length > 0 && (
            <ol className="list-decimal pl-5 text-[13.5px]">
              {cuts.map((words, i) => (
                <li key={i}>{phraseText(words, display)}</li>
              ))}
            </ol>
          )}
          <Facts facts={facts} display={display} />
        </section>
      ))}
      {settings.sizes.length > 0 && (
        <section aria-label="Sizes that follow" className="break-inside-avoid">
          <h3 className="pb-1 text-[15px] font-semibold">Sizes that follow</h3>
          <dl className="max-w-[90mm]">
            {settings.sizes.map(({ id, name, mm, error }) => (
              <Row key={id} name={name}>
                {mm === undefined ? (error ?? '–') : <Measure value={mm} display={display} unit />}
              </Row>
            ))}
          </dl>
        </section>
      )}
    </article>
  );
}
