import { useState } from 'react';
import { Link } from 'react-router';
import { counted } from '../../../core/units';
import { problemText, useNewDemoMutation, useShopsQuery } from '../../app/api';
import { enterShop } from '../../app/shop-choice';
import { Columns, Screen } from '../../parts/layout';

/** The first screen of a browser that has seen no shop: look around in the demo, or set up one's own. */
export function Start() {
  const { data, error } = useShopsQuery();
  const [newDemo, { isLoading }] = useNewDemoMutation();
  const [refused, setRefused] = useState<string>();
  const demo = data?.shops.find((shop) => shop.demo);
  const own = data?.shops.filter((shop) => !shop.demo) ?? [];
  const look = async () => {
    if (demo) return enterShop(demo.id);
    const made = await newDemo();
    if (made.data) enterShop(made.data.id);
    else setRefused(problemText(made.error));
  };
  const problem = refused ?? (error === undefined ? undefined : problemText(error));
  return (
    <Screen className="max-w-[900px]! pt-12 max-desk:pt-5">
      <h1 className="text-[26px] leading-tight font-semibold">Plan the panel before the first cut</h1>
      <p className="max-w-[62ch] pt-2 text-[17px]">
        Junta knows your boards, machines, clamps and glue, and says what a glued panel or board comes to,
        step by step. Begin with a shop: a made-up one to look around in, or your own. You can have both.
      </p>
      {problem && (
        <p role="alert" className="text-red pt-3">
          {problem}
        </p>
      )}
      <Columns list least={17} most={2} className="pt-6">
        <li className="sheet flex flex-col gap-3 p-5">
          <h2 className="text-[19px] font-semibold">Look around first</h2>
          <p className="grow">
            A made-up shop on a lighthouse island
            {demo ? `, with ${counted(demo.jobs, 'job')} and ${counted(demo.boards, 'board')}` : ''}. Change
            anything: you can put it back as new.
          </p>
          {data?.hasDemo === false && !demo ? (
            <p className="text-graphite">This installation came without a demo shop.</p>
          ) : (
            <button
              type="button"
              className="action h-11! self-start text-[16px]!"
              disabled={!data || isLoading}
              onClick={() => void look()}
            >
              Look at the demo shop
            </button>
          )}
        </li>
        <li className="sheet flex flex-col gap-3 p-5">
          <h2 className="text-[19px] font-semibold">Your own shop</h2>
          <p className="grow">
            Its name, machines, clamps and glue: about five minutes. Usual values stand there already; you can
            skip every step and correct it later.
          </p>
          <Link to="/start/shop" className="action action-main h-11! self-start text-[16px]!">
            Set up mine
          </Link>
        </li>
      </Columns>
      {own.length > 0 && (
        <section aria-label="Shops here" className="pt-6">
          <h2 className="pb-2 text-[17px] font-semibold">Shops here already</h2>
          <p className="flex flex-wrap gap-2">
            {own.map(({ id, name }) => (
              <button key={id} type="button" className="action" onClick={() => enterShop(id)}>
                {name}
              </button>
            ))}
          </p>
        </section>
      )}
    </Screen>
  );
}
