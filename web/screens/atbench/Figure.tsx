import { partText, type Phrase } from '../../../core/document';
import { DIAL_READS, type DialReads } from '../../../core/kit';
import { type Display, isOnMark, lengthUnit, offText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Measure } from '../../parts/Measure';

/** A length as it is dialled: on a mark of the rule, or in decimals where it lies between two. */
const Dialled = ({ mm, display }: { mm: number; display: Display }) =>
  isOnMark(mm, display) ? (
    <Measure value={mm} display={display} />
  ) : (
    <span className="rule whitespace-nowrap">{offText(mm, display)}</span>
  );

/** What is dialled, measured or counted, to be read from two metres away; its unit small under it. */
export function Figure({
  name,
  value,
  reads,
  large = false,
}: {
  name: string;
  value: Phrase;
  reads?: DialReads;
  large?: boolean;
}) {
  const own = useDisplay();
  const display = DIAL_READS.find(({ id }) => id === reads)?.display ?? own;
  const length = typeof value === 'object' && 'mm' in value ? value.mm : undefined;
  return (
    <div data-testid="figure" className="min-w-0">
      <p className="text-graphite text-[22px] leading-tight max-desk:text-[18px]">{name}</p>
      <p
        className={`rule leading-none ${large ? 'text-chalk text-[112px] max-desk:text-[84px]' : 'text-[64px] max-desk:text-[57px]'}`}
      >
        {length === undefined ? partText(value, own) : <Dialled mm={length} display={display} />}
      </p>
      {length !== undefined && <p className="text-graphite text-[20px]">{lengthUnit(display)}</p>}
    </div>
  );
}
