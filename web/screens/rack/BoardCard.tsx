import { type ReactNode, useState } from 'react';
import type { NewBoard, RackBoard } from '../../../contract/board';
import { MOST_GRADE, type PricePer, SOLD_AS } from '../../../core/document';
import { acclimatised, boardCost, millingYield } from '../../../core/stock';
import {
  counted,
  fromMinor,
  type Length,
  lengthText,
  moneyText,
  offText,
  toMinor,
} from '../../../core/units';
import { useKitQuery } from '../../app/api';
import { today } from '../../app/day';
import { useDisplay } from '../../app/display';
import { changeBoard } from '../../app/rack';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import { WOODS } from '../../parts/woods';
import { Notes } from '../notes/Notes';
import { BoardColour } from './BoardColour';
import { BoardPast } from './BoardPast';
import { Leaves } from './Leaves';
import { GRAIN_NAMES, PER_NAMES, pricesPer, SOLD_NAMES, WARP_NAMES } from './words';

const NOT_LOOKED = { value: '?', label: 'not looked at' };
const PAGES = ['Usable size', 'Board', 'Wood', 'Photos', 'History'] as const;

/** What is known of a board, on five leaves: what it gives, what it is, how its wood grew, where it came from. */
export function BoardCard({ board }: { board: RackBoard }) {
  const [page, setPage] = useState<(typeof PAGES)[number]>('Usable size');
  return (
    <div className="sheet flex max-h-[420px] shrink-0 flex-col @min-[52rem]:max-h-none @min-[52rem]:w-[408px]">
      <div
        className="border-line flex flex-wrap gap-x-4 border-b px-4"
        role="tablist"
        aria-label="About the board"
      >
        {PAGES.map((name) => (
          <button
            key={name}
            type="button"
            role="tab"
            aria-selected={page === name}
            className={`border-b-2 py-1.5 text-[14px] font-medium ${page === name ? 'border-chalk' : 'text-graphite border-transparent'}`}
            onClick={() => setPage(name)}
          >
            {name}
          </button>
        ))}
        <span className="rule ml-auto self-center text-[16px]">No. {board.label}</span>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2" role="tabpanel" aria-label={page}>
        {page === 'Usable size' && <Gives board={board} />}
        {page === 'Board' && <Facts board={board} />}
        {page === 'Wood' && <Grown board={board} />}
        {page === 'Photos' && (
          <div className="text-[14px]">
            <Notes place={{ board: board.id }} heading={false} />
          </div>
        )}
        {page === 'History' && <BoardPast board={board} />}
      </div>
    </div>
  );
}

const Row = ({ name, children }: { name: string; children: ReactNode }) => (
  <div className="border-line flex items-baseline justify-between gap-3 border-b border-dotted py-[3px] text-[14px]">
    <dt>{name}</dt>
    <dd className="text-right">{children}</dd>
  </div>
);

/** What the milling leaves of the whole board, with what each fault of its shape costs. */
function Gives({ board }: { board: RackBoard }) {
  const { data: kit } = useKitQuery();
  const display = useDisplay();
  if (!kit) return null;
  const { shop } = kit;
  const gives = millingYield(board, shop);
  const half = millingYield(board, shop, { length: board.length.mm / 2, width: board.width.mm / 2 });
  const settled = acclimatised(board, shop, today());
  const { loss, tolerance } = gives;
  const cost = boardCost(board);
  const off = (mm: number) => `± ${offText(mm, display)}`;
  const lost = [
    ['cup', loss.cup],
    ['bow', loss.bow],
    [WARP_NAMES.wind, loss.wind],
  ].filter(([, mm]) => (mm as number) > 0) as [string, number][];
  return (
    <>
      <h2 className="label">Flat, straight and clean it is</h2>
      <dl>
        {(['length', 'width', 'thickness'] as const).map((name) => (
          <Row key={name} name={name[0].toUpperCase() + name.slice(1)}>
            <Measure value={gives[name]} display={display} unit />
            <span className="rule text-graphite ml-1.5 text-[13px] font-medium">
              {off(tolerance[name].likelyMm)}
            </span>
          </Row>
        ))}
        <Row name="Off the faces, together">
          <Measure value={loss.faces} display={display} unit />
          {lost.map(([name, mm]) => (
            <span key={name} className="text-graphite">
              {' '}
              + {lengthText(mm, display)} {name}
            </span>
          ))}
        </Row>
        <Row name={board.sold === 'dressed' ? 'Rounded corners, both edges' : 'Off the edges, together'}>
          <Measure value={loss.edges} display={display} unit />
          {loss.crook > 0 && (
            <span className="text-graphite"> + {lengthText(loss.crook, display)} crook</span>
          )}
        </Row>
        <Row name="Half as long and wide, thick">
          <Measure value={half.thickness} display={display} unit />
        </Row>
        {cost && (
          <Row name="Costs">
            <span className="rule">{moneyText(cost.minor, cost.currency)}</span>
          </Row>
        )}
      </dl>
      <Leaves saws={shop.saws} widthMm={gives.width} thicknessMm={gives.thickness} />
      {gives.notLooked.length > 0 && (
        <p className="text-graphite pt-1 text-[13px]">
          Nobody measured its {gives.notLooked.map((name) => WARP_NAMES[name]).join(', ')}: counted as none.
        </p>
      )}
      {!settled.ready && (
        <p className="text-red pt-1 text-[13px]">
          Not settled yet:{' '}
          {settled.daysLeft !== undefined &&
            settled.daysLeft > 0 &&
            `${counted(settled.days ?? 0, 'day')} here, ${settled.daysLeft} more to go. `}
          {settled.abovePct !== undefined &&
            settled.abovePct > 0 &&
            `It reads ${settled.abovePct.toFixed(1)} % above the ${shop.woodMoisturePct} % this shop comes to, and shrinks as it dries.`}
        </p>
      )}
    </>
  );
}

type Setter = (change: Partial<NewBoard>, mark?: string) => void;
const setterFor =
  (board: RackBoard): Setter =>
  (change, mark) =>
    changeBoard(board.id, change, mark);

function Facts({ board }: { board: RackBoard }) {
  const display = useDisplay();
  const set = setterFor(board);
  const size = (name: 'length' | 'width' | 'thickness', label: string) => (
    <LengthField
      label={label}
      value={board[name]}
      display={display}
      onChange={(value) => set({ [name]: value }, name)}
    />
  );
  return (
    <div className="grid grid-cols-3 gap-x-3 gap-y-1.5">
      <Words label="Number" value={board.label} onChange={(label) => label && set({ label }, 'label')} />
      <Choice
        label="Wood"
        className="col-span-2"
        value={board.species}
        options={WOODS}
        onChange={(species) => set({ species })}
      />
      {size('length', 'Length')}
      {size('width', 'Width')}
      {size('thickness', 'Thickness')}
      <Choice
        label="Sold as"
        className="col-span-2"
        value={board.sold ?? '?'}
        options={[...SOLD_AS.map((sold) => ({ value: sold, label: SOLD_NAMES[sold] })), NOT_LOOKED]}
        onChange={(sold) => set({ sold: sold === '?' ? undefined : (sold as NewBoard['sold']) })}
      />
      <Words
        label="Moisture %"
        value={board.moisturePct === undefined ? '' : String(board.moisturePct)}
        numeric
        onChange={(text) => set({ moisturePct: text ? Number(text) : undefined }, 'moisture')}
      />
      <PriceFields board={board} set={set} />
      <Words
        label="Arrived"
        type="date"
        value={board.arrived ?? ''}
        onChange={(arrived) => set({ arrived: arrived || undefined })}
      />
      <Words
        label="Log or bundle"
        value={board.log ?? ''}
        onChange={(log) => set({ log: log || undefined }, 'log')}
      />
      <Words
        label="Grade it was sold as"
        value={board.grade ?? ''}
        most={MOST_GRADE}
        onChange={(grade) => set({ grade: grade || undefined }, 'grade')}
      />
      {(['cup', 'bow', 'crook', 'wind'] as const).map((name) => (
        <MaybeLength
          key={name}
          label={WARP_NAMES[name][0].toUpperCase() + WARP_NAMES[name].slice(1)}
          value={board.warp?.[name]}
          onChange={(value) => set({ warp: withLength(board.warp, name, value) }, name)}
        />
      ))}
    </div>
  );
}

function withLength(
  warp: NewBoard['warp'],
  name: 'cup' | 'bow' | 'crook' | 'wind',
  value: Length | undefined,
): NewBoard['warp'] {
  const next = { ...warp, [name]: value };
  const known = Object.entries(next).filter(([, length]) => length !== undefined);
  return known.length ? Object.fromEntries(known) : undefined;
}

function PriceFields({ board, set }: { board: RackBoard; set: Setter }) {
  const { price } = board;
  const display = useDisplay();
  const usual = useKitQuery().data?.shop.currency ?? '';
  const [currency, setCurrency] = useState(price?.currency ?? usual);
  const [amount, setAmount] = useState(price ? String(fromMinor(price.minor, price.currency)) : '');
  const take = (text: string, code: string, per: PricePer) => {
    const minor = toMinor(Number(text.replace(',', '.')), code);
    if (text === '') set({ price: undefined }, 'price');
    else if (minor >= 0 && /^[A-Z]{3}$/.test(code)) set({ price: { minor, currency: code, per } }, 'price');
  };
  const lacks = amount !== '' && !/^[A-Z]{3}$/.test(currency);
  return (
    <div className="col-span-3 grid grid-cols-3 gap-x-3">
      <Words
        label="Price"
        numeric
        value={amount}
        onChange={(text) => {
          setAmount(text);
          take(text, currency, price?.per ?? pricesPer(display.system)[0]);
        }}
      />
      <Words
        label={lacks ? 'Currency: three letters' : 'Currency'}
        value={currency}
        bad={lacks}
        onChange={(text) => {
          setCurrency(text.toUpperCase());
          take(amount, text.toUpperCase(), price?.per ?? pricesPer(display.system)[0]);
        }}
      />
      <Choice
        label="per"
        value={price?.per ?? pricesPer(display.system)[0]}
        options={pricesPer(display.system, price?.per).map((per) => ({ value: per, label: PER_NAMES[per] }))}
        onChange={(per) => take(amount, currency, per as PricePer)}
      />
    </div>
  );
}

/** A line of text, or a plain number, that counts when it is left or Enter is pressed. */
function Words({
  label,
  value,
  onChange,
  type = 'text',
  numeric = false,
  bad = false,
  most = 40,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  type?: 'text' | 'date';
  numeric?: boolean;
  bad?: boolean;
  /** The longest text, in characters. */
  most?: number;
}) {
  const [text, setText] = useState(value);
  const [from, setFrom] = useState(value);
  if (from !== value) {
    setFrom(value);
    setText(value);
  }
  const wrong = bad || (numeric && text !== '' && !(Number(text.replace(',', '.')) >= 0));
  const done = () => {
    if (wrong || text === value) return;
    onChange(numeric ? text.replace(',', '.') : text.trim());
  };
  return (
    <label className="block">
      <span className="label block pb-0.5">{label}</span>
      <input
        className="field w-full font-sans! font-medium!"
        type={type}
        inputMode={numeric ? 'decimal' : undefined}
        maxLength={most}
        value={text}
        aria-invalid={wrong}
        onChange={(event) => setText(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === 'Enter') done();
        }}
      />
    </label>
  );
}

/** A length that may not have been looked at. */
function MaybeLength({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Length | undefined;
  onChange: (value: Length | undefined) => void;
}) {
  const display = useDisplay();
  if (!value)
    return (
      <div>
        <span className="label block pb-0.5">{label}</span>
        <button
          type="button"
          className="field text-graphite w-full text-left font-sans! font-medium!"
          aria-label={`Measure ${label.toLowerCase()}`}
          onClick={() => onChange({ mm: 0 })}
        >
          not looked at
        </button>
      </div>
    );
  return (
    <LengthField label={label} value={value} display={display} rule={{ minMm: 0 }} onChange={onChange} />
  );
}

/** How the wood grew and which way it is best used. */
function Grown({ board }: { board: RackBoard }) {
  const set = setterFor(board);
  const pick = <K extends 'grain' | 'pith' | 'fibre' | 'goodFace' | 'sapEdge'>(
    name: K,
    label: string,
    names: Record<NonNullable<NewBoard[K]>, string>,
  ) => (
    <Choice
      label={label}
      value={board[name] ?? '?'}
      options={[
        ...Object.entries<string>(names).map(([value, text]) => ({ value, label: text })),
        NOT_LOOKED,
      ]}
      onChange={(value) => set({ [name]: value === '?' ? undefined : value } as Partial<NewBoard>)}
    />
  );
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
      {pick('grain', 'Grain as cut', GRAIN_NAMES)}
      {pick('pith', 'Pith lies', { above: 'above the upper face', below: 'below the upper face' })}
      <MaybeLength
        label="Ring radius"
        value={board.ringRadius}
        onChange={(ringRadius) => set({ ringRadius }, 'radius')}
      />
      {pick('fibre', 'Fibres along the near edge', {
        straight: 'straight',
        rising: 'rise from the marked end',
        falling: 'fall from the marked end',
      })}
      {pick('goodFace', 'Good face', { up: 'the upper one', down: 'the under one' })}
      {pick('sapEdge', 'Sapwood edge', { near: 'near', far: 'far', both: 'both', none: 'none' })}
      <BoardColour board={board} onChange={(colour) => set({ colour }, 'colour')} />
      {!board.grain && (
        <p className="text-graphite col-span-2 text-[13px]">
          Nobody looked at its grain: it is drawn flat-sawn, and movement across it rests on the wood’s
          average.
        </p>
      )}
    </div>
  );
}
