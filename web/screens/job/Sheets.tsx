import { nameWindow } from '../../app/title';
import { Printer } from 'lucide-react';
import { type CSSProperties, useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type GlueSheet, glueSheets, scaleFor, type SheetPart } from '../../../core/layup';
import { type Paper, paperOf } from '../../../core/kit';
import { run } from '../../../core/run';
import { areaText, counted, type Display, INCH, lengthText } from '../../../core/units';
import { settingSheet } from '../../../core/view';
import { cssColour } from '../../../core/wood/css';
import { speciesName } from '../../../core/wood/common';
import { lookOf } from '../../../core/wood/species';
import { problemText, useJobQuery, useKitQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import '../../app/open-job';
import { Letterhead } from '../../parts/Letterhead';
import { Toggle } from '../../parts/Toggle';
import { SettingSheet } from './SettingSheet';
import { Screen } from '../../parts/layout';

/** Paper sizes, mm (ISO 216; letter is 8 1/2 by 11 in). */
const PAPERS: Record<Paper, readonly [number, number]> = { a4: [210, 297], letter: [215.9, 279.4] };
const MARGIN = 14;

/** One page for every glue-up: the lay-up to scale, every part with its number and its turns. */
export function Sheets() {
  const { id = '' } = useParams();
  const display = useDisplay();
  const { data, error } = useJobQuery(id, { refetchOnMountOrArgChange: true });
  const { data: kit } = useKitQuery();
  const [chosen, setPaper] = useState<Paper>();
  const paper = chosen ?? (kit ? paperOf(kit.shop) : 'a4');
  useEffect(() => {
    if (data) nameWindow(`Sheets, ${data.name}`);
  }, [data]);
  const { sheets, settings } = useMemo(() => {
    const timeline = data && run(data.build);
    return data && timeline
      ? { sheets: glueSheets(data.build, timeline), settings: settingSheet(data.build, timeline) }
      : { sheets: [], settings: undefined };
  }, [data]);
  if (error)
    return (
      <p role="alert" className="p-8">
        {problemText(error)}
      </p>
    );
  if (!data) return <p className="text-graphite p-8">Opening the job …</p>;
  const [width, height] = PAPERS[paper];
  return (
    <Screen className="w-fit! max-w-full! overflow-x-auto px-6 print:overflow-visible">
      <h1 className="sr-only print:hidden">Sheets, {data.name}</h1>
      <style>{`@page { size: ${width}mm ${height}mm; margin: ${MARGIN}mm; }`}</style>
      <div className="sticky left-0 flex max-w-[calc(100vw-48px)] flex-wrap items-center gap-3 pb-3 print:hidden">
        <Link className="action" to={`/jobs/${id}`}>
          To the job
        </Link>
        <Toggle
          label="Paper"
          hideLabel
          value={paper}
          options={[
            { value: 'a4', label: 'A4' },
            { value: 'letter', label: 'Letter' },
          ]}
          onChange={setPaper}
        />
        <span className="text-graphite text-[14px]">Print at 100 %: the drawings are to scale.</span>
        <button
          type="button"
          className="action action-main ml-auto"
          disabled={sheets.length === 0 && !settings}
          onClick={() => print()}
        >
          <Printer size={15} aria-hidden /> Print
        </button>
      </div>
      {sheets.length === 0 && <p>No glue-up of this job can be drawn yet.</p>}
      {sheets.map((sheet, i) => (
        <Sheet
          key={sheet.step.id}
          sheet={sheet}
          title={`${data.name}: ${sheet.name}`}
          page={`${i + 1} of ${sheets.length}`}
          paper={paper}
          display={display}
        />
      ))}
      {settings && (
        <SettingSheet
          title={`${data.name}: settings and cuts`}
          settings={settings}
          room={width - 2 * MARGIN}
          display={display}
        />
      )}
    </Screen>
  );
}

function Sheet({
  sheet,
  title,
  page,
  paper,
  display,
}: {
  sheet: GlueSheet;
  title: string;
  page: string;
  paper: Paper;
  display: Display;
}) {
  const [width, height] = PAPERS[paper];
  const room = [width - 2 * MARGIN, height - 2 * MARGIN] as const;
  const down = sheet.seen === 'face' ? sheet.size[1] : sheet.size[2];
  // Long work stands upright on the page where it is drawn larger so.
  const flat = scaleFor([sheet.size[0], down], [room[0] - 12, room[1] * 0.5]);
  const upright = scaleFor([down, sheet.size[0]], [room[0] - 12, room[1] * 0.62]);
  const stands = upright < flat && sheet.parts.length <= 24;
  const scale = stands ? upright : flat;
  const text = (mm: number) => lengthText(mm, display);
  return (
    <article
      aria-label={title}
      // On paper exactly as wide as its room: wider, and the browser would shrink the page and the scale with it.
      className="mb-6 box-border w-[calc(var(--room)+10.6mm)] break-after-page bg-white p-5 shadow print:mb-0 print:w-[var(--room)] print:p-0 print:shadow-none"
      style={{ '--room': `${room[0]}mm` } as CSSProperties}
    >
      <Letterhead />
      <header className="flex items-baseline justify-between">
        <h2 className="text-[19px] font-semibold">{title}</h2>
        <span className="text-graphite text-[13px]">
          sheet {page}, scale 1 : {scale}
        </span>
      </header>
      <p className="pb-2 text-[14px]">
        {counted(sheet.parts.length, 'part')}
        {sheet.blanks > 1 && `, ${sheet.blanks} blanks alike`}; {counted(sheet.joints, 'joint')},{' '}
        {areaText(sheet.areaMm2, display)} to glue. Comes out at {sheet.size.map(text).join(' × ')}.{' '}
        {sheet.seen === 'face'
          ? 'Seen from above; the first part of a row across lies at the far edge.'
          : 'Seen from the near edge; the first layer lies lowest.'}
      </p>
      <Drawing sheet={sheet} scale={scale} down={down} stands={stands} />
      <ScaleBar scale={scale} display={display} />
      <AidPlaces aids={sheet.aids} display={display} />
      <PatternMap parts={sheet.parts} display={display} />
    </article>
  );
}

function Drawing({
  sheet,
  scale,
  down,
  stands,
}: {
  sheet: GlueSheet;
  scale: number;
  down: number;
  stands: boolean;
}) {
  const [across, high] = [sheet.size[0], down];
  const mm = (value: number) => `${value / scale}mm`;
  const thin = 0.25 * scale;
  const [w, h] = stands ? [high, across] : [across, high];
  // The page's y runs down; upright, the left end lies at the foot of the page.
  const frame = stands ? `matrix(0 -1 1 0 0 ${across})` : `matrix(1 0 0 -1 0 ${high})`;
  const mark = sheet.step.mark;
  return (
    <svg
      role="img"
      aria-label={`${sheet.name}, drawn to scale`}
      width={mm(w + 2 * thin)}
      height={mm(h + 2 * thin)}
      viewBox={`${-thin} ${-thin} ${w + 2 * thin} ${h + 2 * thin}`}
      className="mx-auto block max-w-none"
    >
      <g transform={frame}>
        {sheet.faces.map(({ species, points }) => (
          <polygon
            key={points.join()}
            points={points.map((p) => p.join()).join(' ')}
            fill={cssColour(lookOf(species).early)}
            fillOpacity={0.45}
            stroke="#444"
            strokeWidth={thin * 0.6}
          />
        ))}
        {sheet.aids.boxes.map(([x0, y0, x1, y1]) => (
          <rect
            key={`aid ${x0} ${y0}`}
            data-aid=""
            x={x0}
            y={y0}
            width={Math.max(thin, x1 - x0)}
            height={Math.max(thin, y1 - y0)}
            fill="none"
            stroke="#222"
            strokeWidth={thin}
            strokeDasharray={`${thin * 4} ${thin * 3}`}
          />
        ))}
        {mark === 'triangle' && (
          <path
            d={`M${across * 0.25} 0L${across / 2} ${high}L${across * 0.75} 0`}
            fill="none"
            stroke="#222"
            strokeWidth={thin * 2}
          />
        )}
      </g>
      {sheet.parts.map((part) => {
        const [x0, y0, x1, y1] = part.box;
        const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
        const [px, py] = stands ? [cy, across - cx] : [cx, high - cy];
        const size = Math.min(4 * scale, 0.7 * Math.min(x1 - x0, y1 - y0));
        return (
          <text
            key={part.nth}
            x={px}
            y={py + size * 0.35}
            fontSize={size}
            textAnchor="middle"
            className="rule"
            fill="#000"
            stroke="#fff"
            strokeWidth={size * 0.14}
            paintOrder="stroke"
          >
            {part.nth}
            {part.turned.includes('end for end') && ' ↔'}
            {part.turned.includes('rolled over') && ' ↕'}
            {part.turned.includes('a quarter turn') && ' ↺'}
          </text>
        );
      })}
    </svg>
  );
}

function ScaleBar({ scale, display }: { scale: number; display: Display }) {
  const unit = display.system === 'inch' ? INCH : 10;
  const count =
    display.system === 'inch' ? Math.max(1, Math.round(scale)) : Math.max(5, Math.round(scale * 2.5));
  const long = (count * unit) / scale;
  return (
    <div className="flex items-center gap-2 py-2 text-[12px]">
      <svg width={`${long}mm`} height="3mm" className="max-w-none shrink-0" aria-hidden>
        <path d="M0 0V12M0 6H2000" stroke="#000" strokeWidth="1" />
        <rect x="0" y="4" width={`${long / 2}mm`} height="4" />
      </svg>
      {lengthText(count * unit, display)}
    </div>
  );
}

/** Where biscuits, dowels or cauls go, measured from the left end. */
function AidPlaces({ aids, display }: { aids: GlueSheet['aids']; display: Display }) {
  if (!aids.name) return null;
  const text = (list: readonly number[]) => list.map((mm) => lengthText(mm, display)).join(', ');
  // Joints with the same places are told as one.
  const groups = new Map<string, number[]>();
  for (const { joint, at } of aids.places)
    groups.set(text(at), [...(groups.get(text(at)) ?? []), ...(joint === undefined ? [] : [joint])]);
  return (
    <p className="pb-2 text-[13px]">
      <strong className="font-semibold">{aids.name}</strong>, dashed; middles from the left end:{' '}
      {[...groups]
        .map(([places, joints]) =>
          joints.length > 0
            ? `${joints.length > 1 ? 'joints' : 'joint'} ${runs(joints)} at ${places}`
            : places,
        )
        .join('; ')}
      .
    </p>
  );
}

/** Every part with its wood, its turns and its shift; many alike are told as one run. */
function PatternMap({ parts, display }: { parts: readonly SheetPart[]; display: Display }) {
  const words = (part: SheetPart) =>
    [
      part.species.map(speciesName).join(', '),
      part.size.map((mm) => lengthText(mm, display)).join(' × '),
      part.turned.join(' and ') || 'as it came',
      Math.abs(part.shifted) > 0.01 ? `shifted ${lengthText(part.shifted, display)}` : '',
    ]
      .filter(Boolean)
      .join('; ');
  const groups = new Map<string, number[]>();
  for (const part of parts) groups.set(words(part), [...(groups.get(words(part)) ?? []), part.nth]);
  return (
    <table className="w-full text-[13px]">
      <thead>
        <tr className="border-b text-left">
          <th className="pr-3 font-semibold">Parts</th>
          <th className="font-semibold">Wood; length × width × thickness; how it lies</th>
        </tr>
      </thead>
      <tbody>
        {[...groups].map(([text, list]) => (
          <tr key={text} className="border-line border-b align-top">
            <td className="rule py-0.5 pr-3 whitespace-nowrap">{runs(list)}</td>
            <td className="py-0.5">{text}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Numbers as runs: 1, 3, 5 to 8. */
function runs(list: readonly number[]): string {
  const out: string[] = [];
  for (let i = 0; i < list.length; ) {
    let k = i;
    while (k + 1 < list.length && list[k + 1] === list[k] + 1) k += 1;
    out.push(k > i ? `${list[i]}–${list[k]}` : String(list[i]));
    i = k + 1;
  }
  return out.length > 8 ? `${out.slice(0, 8).join(', ')} …` : out.join(', ');
}
