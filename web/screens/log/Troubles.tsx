import { useState } from 'react';
import { Link } from 'react-router';
import { CHECKS, phraseOf } from '../../../core/bench';
import { CHECK_KINDS, FAILURE_NAMES, type Phrase } from '../../../core/document';
import { MOST_RULES, type OwnRule, type ShopSnapshot } from '../../../core/kit';
import { type Cause, causesOf, WARNERS } from '../../../core/log';
import { STEP_ROOMS } from '../../../core/steps';
import { counted, moneyText } from '../../../core/units';
import { problemText, useKitQuery, useLogQuery } from '../../app/api';
import { newId } from '../../app/ids';
import { useKitChange } from '../../app/use-kit-change';
import { useDisplay } from '../../app/display';
import { Toggle } from '../../parts/Toggle';
import { Words } from '../../parts/Words';
import { Problem } from './Problem';
import { RuleForm } from './RuleForm';

const ORDERS = [
  { value: 'times', label: 'How often' },
  { value: 'cost', label: 'What it cost' },
] as const;

/** The first letter small: it stands in the middle of a sentence. */
const stepName = (kind: string): string => STEP_ROOMS.find((room) => room.kind === kind)?.name ?? kind;

/** How often the plan had said so, of the times that it was looked at when the failure was told. */
const hadWarned = ({ looked, warned }: Cause): string =>
  looked === 1
    ? `The plan had ${warned === 1 ? '' : 'not '}warned of it.`
    : `The plan had warned of ${warned} of the ${looked} that were looked at.`;

/** What a rule looks at, and against which number. */
const ruleWords = ({ dimension, size, check, value, side }: OwnRule): Phrase[] => {
  if (dimension && size) return [`${dimension} ${side} `, size];
  const kind = CHECK_KINDS.find((each) => each === check);
  return kind && value !== undefined
    ? [`${CHECKS[kind].name} ${side} `, phraseOf(CHECKS[kind].of, value)]
    : ['not known to this Junta'];
};

function CauseItem({
  cause,
  currency,
  onRule,
}: {
  cause: Cause;
  currency: string | undefined;
  onRule: (words: string) => void;
}) {
  const name = FAILURE_NAMES[cause.cause];
  const { words: warned } = WARNERS[cause.cause];
  return (
    <li className="border-line flex flex-col gap-1 border-b border-dotted py-3" data-cause={cause.cause}>
      <h3 className="font-medium">{name}</h3>
      <p className="text-[14.5px]">
        {cause.times === 1 ? 'once' : `${cause.times} times`}, at {counted(cause.jobs, 'job')}
        {cause.pieces > 0 && `, ${counted(cause.pieces, 'piece')} struck`}
        {currency !== undefined &&
          cause.costMinor > 0 &&
          `, wood for ${moneyText(cause.costMinor, currency)}`}
        ; the last time on {new Date(cause.last).toLocaleDateString('sv')}
      </p>
      <p className="text-graphite text-[14px]">
        {warned
          ? `Junta points out beforehand: ${warned}.`
          : 'Junta has no finding that would have warned of it: a rule of your own can.'}
        {cause.looked > 0 && ` ${hadWarned(cause)}`}
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="action" onClick={() => onRule(name)}>
          Make a rule of it …
        </button>
        <Link className="action" to={`/log?view=readings&kind=failure&text=${encodeURIComponent(name)}`}>
          Look at each
        </Link>
      </div>
    </li>
  );
}

function Rules({
  shop,
  change,
}: {
  shop: ShopSnapshot;
  change: (change: (shop: ShopSnapshot) => ShopSnapshot) => void;
}) {
  const display = useDisplay();
  const rules = shop.rules ?? [];
  if (rules.length === 0)
    return (
      <p className="py-1">
        None yet. A rule watches a size or a check of every job, and says so where it is broken.
      </p>
    );
  return (
    <ul>
      {rules.map((rule) => (
        <li
          key={rule.id}
          className="border-line flex flex-wrap items-center gap-3 border-b border-dotted py-2"
          data-rule={rule.id}
        >
          <span className="min-w-0 flex-1 break-words">
            {rule.words} {stepName(rule.step)}: <Words phrase={ruleWords(rule)} display={display} />
          </span>
          <button
            type="button"
            className="action"
            onClick={() =>
              change(({ rules: all = [], ...kit }) => {
                const rest = all.filter(({ id }) => id !== rule.id);
                return rest.length > 0 ? { ...kit, rules: rest } : kit;
              })
            }
          >
            Take it away
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What goes wrong in this shop: by how often and by what it cost, with what would have warned, and the rules made of it. */
export function Troubles() {
  const [by, setBy] = useState<'times' | 'cost'>('times');
  const [making, setMaking] = useState<string>();
  const { data, error } = useLogQuery({ kind: 'failure' }, { refetchOnMountOrArgChange: true });
  const { data: kit } = useKitQuery();
  const { change, problem } = useKitChange();
  if (error) return <Problem why={problemText(error)} />;
  if (!data || !kit) return <p role="status">Reading the log …</p>;
  const causes = causesOf(data.causes, by);
  const full = (kit.shop.rules ?? []).length >= MOST_RULES;
  return (
    <div className="flex flex-col gap-5">
      <Problem why={problem} />
      <section aria-labelledby="causes" className="sheet p-4">
        <div className="flex flex-wrap items-center gap-4">
          <h2 id="causes" className="text-[17px] font-semibold">
            What goes wrong here
          </h2>
          <Toggle label="In the order of" hideLabel value={by} options={ORDERS} onChange={setBy} />
        </div>
        {causes.length === 0 ? (
          <p className="py-2">
            Nothing was told to have failed. At the bench, “It failed …” writes it down and finds ways to go
            on.
          </p>
        ) : (
          <ul>
            {causes.map((cause) => (
              <CauseItem key={cause.cause} cause={cause} currency={kit.shop.currency} onRule={setMaking} />
            ))}
          </ul>
        )}
      </section>
      <section aria-labelledby="rules" className="sheet flex flex-col gap-3 p-4">
        <h2 id="rules" className="text-[17px] font-semibold">
          Rules of this shop
        </h2>
        <Rules shop={kit.shop} change={change} />
        {full ? (
          <p>{MOST_RULES} rules are the most. Take one away first.</p>
        ) : making === undefined ? (
          <button type="button" className="action self-start" onClick={() => setMaking('')}>
            Add a rule …
          </button>
        ) : (
          <RuleForm
            key={making}
            words={making}
            onClose={() => setMaking(undefined)}
            onMade={(rule) => {
              change((shop) => ({ ...shop, rules: [...(shop.rules ?? []), { ...rule, id: newId() }] }));
              setMaking(undefined);
            }}
          />
        )}
        <p className="text-graphite text-[13.5px]">
          New jobs keep to it at once. A job that is planned already takes it with “Use the present one”.
        </p>
      </section>
    </div>
  );
}
