import { yupResolver } from '@hookform/resolvers/yup';
import { CornerDownLeft } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { type FieldPath, useForm } from 'react-hook-form';
import * as yup from 'yup';
import type { NewBoard, RackBoard } from '../../../contract/board';
import { PRICE_PER, type PricePer, SOLD_AS, type SoldAs } from '../../../core/document';
import { speciesByName } from '../../../core/exchange/rack';
import { nextNumber } from '../../../core/stock';
import { soldSize } from '../../../core/kit';
import { type Display, inputText, lengthText, parseLength } from '../../../core/units';
import { SPECIES } from '../../../core/wood/species';
import { problemText, useAddBoardsMutation } from '../../app/api';
import { useDisplay } from '../../app/display';
import { useWriteOnce } from '../../app/write-once';
import { PER_NAMES, SOLD_NAMES } from './words';

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
}

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
        (value) => speciesByName(value ?? '') !== undefined,
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
  });

const number = (text: string) => Number(text.replace(',', '.'));

function boardOf(entry: Entry, display: Display): NewBoard | undefined {
  const lengths = [entry.length, entry.width, entry.thickness].map((text) =>
    parseLength(text, display.system),
  );
  const [length, width, thickness] = lengths.map((parsed) => (parsed.ok ? parsed.length : undefined));
  const species = speciesByName(entry.wood);
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
            minor: Math.round(number(entry.price) * 100),
            currency: entry.currency.toUpperCase(),
            per: entry.per,
          },
        }
      : {}),
    ...(entry.moisture ? { moisturePct: number(entry.moisture) } : {}),
    ...(entry.arrived ? { arrived: entry.arrived } : {}),
  };
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
  const put = handleSubmit(async (entry) => {
    const board = boardOf(entry, display);
    if (!board) return;
    const result = await add({ boards: [board], write: write.of(board) });
    setRefused(result.error ? problemText(result.error) : undefined);
    if (!result.data) return;
    write.done();
    setSizeSaid('');
    own.current = board.label;
    onAdded(result.data.ids[0]);
    setFocus('length', { shouldSelect: true });
  });
  const field = (name: FieldPath<Entry>, title: string, width: string, placeholder = '') => {
    const error = formState.errors[name]?.message;
    return (
      <label className={`flex flex-col ${width}`}>
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
      <div className="flex flex-wrap items-end gap-2">
        {field('label', 'Number', 'w-[68px]')}
        {field('wood', 'Wood', 'w-[150px]', 'White ash')}
        <label className="flex w-[128px] flex-col">
          <span className="label">Sold as</span>
          <select {...register('sold')} className="field font-sans! font-medium!">
            {SOLD_AS.map((sold) => (
              <option key={sold} value={sold}>
                {SOLD_NAMES[sold]}
              </option>
            ))}
          </select>
        </label>
        {field('length', `Length, ${inch ? 'in' : 'mm'}`, 'w-[76px]', inch ? '73' : '1850')}
        {field('width', 'Width', 'w-[70px]', inch ? '5 3/4' : '145')}
        {field('thickness', 'Thick', 'w-[62px]', inch ? '6/4' : '38')}
        {field('price', 'Price', 'w-[66px]')}
        {field('currency', 'Currency', 'w-[62px]', 'EUR')}
        <label className="flex w-[100px] flex-col">
          <span className="label">per</span>
          <select {...register('per')} className="field font-sans! font-medium!">
            {PRICE_PER.map((per) => (
              <option key={per} value={per}>
                {PER_NAMES[per]}
              </option>
            ))}
          </select>
        </label>
        {field('moisture', 'Moisture %', 'w-[72px]')}
        {field('arrived', 'Arrived', 'w-[128px]')}
        <button type="submit" className="action action-main" title="Enter puts it on the rack">
          <CornerDownLeft size={15} aria-hidden /> Put on the rack
        </button>
      </div>
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
