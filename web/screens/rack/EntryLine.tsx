import { yupResolver } from '@hookform/resolvers/yup';
import { CornerDownLeft } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { type FieldPath, useForm } from 'react-hook-form';
import * as yup from 'yup';
import type { NewBoard, RackBoard } from '../../../contract/board';
import { phraseText, type PricePer, SOLD_AS, type SoldAs } from '../../../core/document';
import { nextNumber } from '../../../core/stock/rack';
import { oddSize } from '../../../core/stock/odd';
import { soldSize } from '../../../core/kit';
import { type Display, inputText, lengthText, parseLength, toMinor } from '../../../core/units';
import { lastUsedFirst, woodsByName } from '../../../core/wood/names';
import { speciesName } from '../../../core/wood/common';
import { SPECIES } from '../../../core/wood/species';
import { problemText, useAddBoardsMutation, useKitQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { useWriteOnce } from '../../app/write-once';
import { PER_NAMES, pricesPer, SOLD_NAMES } from './words';

interface Entry {
  label: string;
  wood: string;
  sold: SoldAs;
  length: string;
  width: string;
  thickness: string;
  price: string;
  currency: string;
  per: PricePer;
  moisture: string;
  arrived: string;
  alike: string;
}

/** The most boards that are entered at once. */
const MOST_ALIKE = 200;

const size = (display: Display) =>
  yup
    .string()
    .required('type a size')
    .test('length', (value, context) => {
      const parsed = parseLength(value ?? '', display.system);
      return parsed.ok || context.createError({ message: parsed.reason });
    });
const amount = (most: number, words: string) =>
  yup
    .string()
    .test(
      'amount',
      words,
      (value) => !value || (Number(value.replace(',', '.')) >= 0 && Number(value.replace(',', '.')) <= most),
    );

const schemaFor = (display: Display, boards: readonly RackBoard[]) =>
  yup.object({
    label: yup
      .string()
      .trim()
      .required('number it')
      .max(40, 'at most 40 letters')
      .test(
        'free',
        ({ value }) => `${value} is on another board`,
        (value) => !boards.some(({ label }) => label === value),
      ),
    wood: yup
      .string()
      .required('which wood')
      .test(
        'known',
        ({ value }) => `“${value}” is no wood that Junta knows`,
        // A name that may mean several woods is asked about when the board is put on the rack.
        (value) => woodsByName(value ?? '').length > 0,
      ),
    length: size(display),
    width: size(display),
    thickness: size(display),
    price: amount(1e9, 'not an amount'),
    currency: yup
      .string()
      .when('price', ([price], schema) =>
        price ? schema.matches(/^[A-Za-z]{3}$/, 'three letters, such as EUR') : schema,
      ),
    moisture: amount(200, '0 to 200 %'),
    alike: yup
      .string()
      .test(
        'alike',
        `how many: a whole number from 1 to ${MOST_ALIKE}`,
        (value) => /^\d{1,3}$/.test(value ?? '') && Number(value) >= 1 && Number(value) <= MOST_ALIKE,
      ),
  });

const number = (text: string) => Number(text.replace(',', '.'));

function boardOf(entry: Entry, display: Display): NewBoard | undefined {
  const lengths = [entry.length, entry.width, entry.thickness].map((text) =>
    parseLength(text, display.system),
  );
  const [length, width, thickness] = lengths.map((parsed) => (parsed.ok ? parsed.length : undefined));
  const [species] = woodsByName(entry.wood);
  if (!length || !width || !thickness || !species) return undefined;
  return {
    label: entry.label.trim(),
    species,
    length,
    width,
    thickness,
    sold: entry.sold,
    ...(entry.price
      ? {
          price: {
            minor: toMinor(number(entry.price), entry.currency.toUpperCase()),
            currency: entry.currency.toUpperCase(),
            per: entry.per,
          },
        }
      : {}),
    ...(entry.moisture ? { moisturePct: number(entry.moisture) } : {}),
    ...(entry.arrived ? { arrived: entry.arrived } : {}),
  };
}

/** What must be said before a board goes onto the rack. */
type Asked =
  | { what: 'wood'; name: string; woods: string[] }
  | { what: 'size'; words: string; swapped: boolean; sizes: string };

/** So many boards like one, each with the next free number. */
function alike(board: NewBoard, count: number, rack: readonly RackBoard[]): NewBoard[] {
  const labels = [...rack.map(({ label }) => label), board.label];
  const boards = [board];
  while (boards.length < count) {
    const label = nextNumber(labels);
    labels.push(label);
    boards.push({ ...board, label });
  }
  return boards;
}

function Question({
  asked,
  onWood,
  onSwap,
  onMeant,
}: {
  asked: Asked;
  onWood: (wood: string) => void;
  onSwap: () => void;
  onMeant: (sizes: string) => void;
}) {
  return (
    <div
      role="alert"
      className="border-chalk bg-chalk-wash mt-1.5 flex flex-wrap items-center gap-2 border-l-[3px] px-3 py-2 text-[14px]"
    >
      {asked.what === 'wood' ? (
        <>
          Which {asked.name}?
          {asked.woods.map((wood) => (
            <button key={wood} type="button" className="action" onClick={() => onWood(wood)}>
              {speciesName(wood)}
            </button>
          ))}
        </>
      ) : (
        <>
          {asked.words}: is that so?
          {asked.swapped && (
            <button type="button" className="action" onClick={onSwap}>
              Swap length and width
            </button>
          )}
          <button type="button" className="action" onClick={() => onMeant(asked.sizes)}>
            It is so
          </button>
        </>
      )}
    </div>
  );
}

/** One line to enter a board: tab through, Enter puts it on the rack, and the next one begins like it. */
export function EntryLine({
  rack,
  onAdded,
}: {
  /** Undefined until the rack has been read: no number is proposed before that. */
  rack: readonly RackBoard[] | undefined;
  onAdded: (id: string) => void;
}) {
  const display = useDisplay();
  const used = (rack ?? []).map(({ species }) => species);
  const currency = useKitQuery().data?.shop.currency;
  const [add] = useAddBoardsMutation();
  const write = useWriteOnce();
  const [refused, setRefused] = useState<string>();
  /** The number that stands there by Junta's own hand, and may be replaced by the next. */
  const own = useRef<string>(undefined);
  const { register, handleSubmit, formState, setValue, setFocus, getValues } = useForm<Entry>({
    defaultValues: {
      label: '',
      wood: '',
      sold: 'rough',
      length: '',
      width: '',
      thickness: '',
      price: '',
      currency: '',
      per: 'boardFoot',
      moisture: '',
      arrived: '',
      alike: '1',
    },
    resolver: yupResolver(schemaFor(display, rack ?? [])) as never,
  });
  useEffect(() => {
    if (!rack) return;
    // A number typed by hand stays, also a wrong one: it is answered, not replaced.
    const label = getValues('label');
    if (label && label !== own.current) return;
    own.current = nextNumber(rack.map((board) => board.label));
    setValue('label', own.current);
  }, [rack, getValues, setValue]);
  useEffect(() => {
    // What the shop counts in stands there until another is typed.
    if (currency && !getValues('currency')) setValue('currency', currency);
    if (!pricesPer(display.system).includes(getValues('per'))) setValue('per', pricesPer(display.system)[0]);
  }, [currency, display.system, getValues, setValue]);
  const [sizeSaid, setSizeSaid] = useState('');
  /** `2x8` or `45 x 95` in one of the two fields fills both with the real size, and says so. */
  const readSold = (name: 'width' | 'thickness') => {
    const text = getValues(name);
    const sold = soldSize(text);
    if (!sold) return;
    const as = (mm: number) => inputText({ mm }, display);
    setValue('thickness', as(sold.thicknessMm));
    setValue('width', as(sold.widthMm));
    setValue('sold', 'dressed');
    const real = `${lengthText(sold.thicknessMm, display)} × ${lengthText(sold.widthMm, display)}`;
    setSizeSaid(
      sold.by === 'nominal'
        ? `${text.trim()} is a nominal size: really ${real} (PS 20, dry).`
        : `${text.trim()} is taken as the real size, ${real}.`,
    );
  };
  const [asked, setAsked] = useState<Asked>();
  /** The size that was asked about and is right. */
  const meant = useRef<string>(undefined);
  const put = handleSubmit(async (entry) => {
    setAsked(undefined);
    const woods = woodsByName(entry.wood);
    if (woods.length > 1) {
      setAsked({ what: 'wood', name: entry.wood.trim(), woods: lastUsedFirst(woods, used) });
      return;
    }
    const board = boardOf(entry, display);
    if (!board) return;
    const odd = oddSize(board);
    const sizes = [entry.length, entry.width, entry.thickness].join();
    if (odd && meant.current !== sizes) {
      setAsked({ what: 'size', words: phraseText(odd.words, display), swapped: odd.swapped, sizes });
      return;
    }
    const boards = alike(board, Number(entry.alike), rack ?? []);
    const result = await add({ boards, write: write.of(boards) });
    setRefused(result.error ? problemText(result.error) : undefined);
    if (!result.data) return;
    write.done();
    setSizeSaid(
      boards.length > 1
        ? `${boards.length} boards alike are on the rack, numbers ${boards[0].label} to ${boards[boards.length - 1].label}.`
        : '',
    );
    setValue('alike', '1');
    own.current = board.label;
    onAdded(result.data.ids[0]);
    setFocus('length', { shouldSelect: true });
  });
  const field = (name: FieldPath<Entry>, title: string, width: string, placeholder = '') => {
    const error = formState.errors[name]?.message;
    return (
      <label className={`flex min-w-0 flex-col max-desk:w-auto! ${width}`}>
        <span className="label">{title}</span>
        <input
          {...register(
            name,
            name === 'width' || name === 'thickness' ? { onBlur: () => readSold(name) } : undefined,
          )}
          data-entry=""
          className="field w-full"
          placeholder={placeholder}
          aria-invalid={error !== undefined}
          title={error}
          list={name === 'wood' ? 'woods' : undefined}
          type={name === 'arrived' ? 'date' : 'text'}
          autoComplete="off"
        />
      </label>
    );
  };
  const problems = Object.values(formState.errors).map((error) => error?.message);
  const inch = display.system === 'inch';
  return (
    <form aria-label="Enter a board" onSubmit={(event) => void put(event)} className="px-3 py-1.5">
      <datalist id="woods">
        {SPECIES.map(({ id, common }) => (
          <option key={id} value={common} />
        ))}
      </datalist>
      <div className="flex flex-wrap items-end gap-2 max-desk:grid max-desk:grid-cols-2">
        {field('label', 'Number', 'w-[52px]')}
        {field('wood', 'Wood', 'w-[118px]', 'White ash')}
        <label className="flex w-[138px] min-w-0 flex-col max-desk:w-auto">
          <span className="label">Sold as</span>
          <select {...register('sold')} className="field font-sans! font-medium!">
            {SOLD_AS.map((sold) => (
              <option key={sold} value={sold}>
                {SOLD_NAMES[sold]}
              </option>
            ))}
          </select>
        </label>
        {field('length', `Length, ${inch ? 'in' : 'mm'}`, 'w-[70px]', inch ? '73' : '1850')}
        {field('width', 'Width', 'w-[64px]', inch ? '5 3/4' : '145')}
        {field('thickness', 'Thick', 'w-[56px]', inch ? '6/4' : '38')}
        {field('price', 'Price', 'w-[60px]')}
        {field('currency', 'Currency', 'w-[58px]', 'EUR')}
        <label className="flex w-[106px] min-w-0 flex-col max-desk:w-auto">
          <span className="label">per</span>
          <select {...register('per')} className="field font-sans! font-medium!">
            {pricesPer(display.system).map((per) => (
              <option key={per} value={per}>
                {PER_NAMES[per]}
              </option>
            ))}
          </select>
        </label>
        {field('moisture', 'Moisture %', 'w-[68px]')}
        {field('arrived', 'Arrived', 'w-[128px]')}
        {field('alike', 'How many', 'w-[62px]')}
        <button
          type="submit"
          className="action action-main max-desk:col-span-2"
          title="Enter puts it on the rack"
        >
          <CornerDownLeft size={15} aria-hidden /> Put on the rack
        </button>
      </div>
      {asked && (
        <Question
          asked={asked}
          onWood={(wood) => {
            setValue('wood', speciesName(wood));
            void put();
          }}
          onSwap={() => {
            const [length, width] = [getValues('length'), getValues('width')];
            setValue('length', width);
            setValue('width', length);
            void put();
          }}
          onMeant={(sizes) => {
            meant.current = sizes;
            void put();
          }}
        />
      )}
      {sizeSaid && problems.length === 0 && !refused && (
        <p role="status" className="text-graphite pt-1 text-[13px]">
          {sizeSaid}
        </p>
      )}
      {(problems.length > 0 || refused) && (
        <p role="alert" className="text-red pt-1 text-[13px]">
          {refused ?? problems.join('; ')}
        </p>
      )}
    </form>
  );
}
