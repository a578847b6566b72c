import { nameWindow } from '../../app/title';
import '../../app/open-job';
import { attempt, isRefused } from '../../../core/document';
import { Printer } from 'lucide-react';
import { useEffect } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { layAnswer, planOf, settingsOf, setUpList, type SetUp, type BoardLayout } from '../../../core/stock';
import { lengthText, type Display } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { problemText, useJobQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { Letterhead } from '../../parts/Letterhead';
import { Measure } from '../../parts/Measure';
import { useCompanions } from './Companions';
import { CUT_NAMES } from './words';
import { Screen } from '../../parts/layout';

/** The set-up list on paper: each setting once, with what is cut at it; and the boards with their pencil marks. */
export function SetUpSheet() {
  const { id = '' } = useParams();
  const display = useDisplay();
  const { data, error } = useJobQuery(id, { refetchOnMountOrArgChange: true });
  const [search] = useSearchParams();
  const companions = useCompanions(search.get('with'), id);
  useEffect(() => {
    if (data) nameWindow(`Set-up list, ${data.name}`);
  }, [data]);
  const trouble = error ? problemText(error) : companions.trouble;
  if (trouble)
    return (
      <p role="alert" className="p-8">
        {trouble}
      </p>
    );
  // With a job missing, its strips would be missing on the paper.
  if (!data || companions.waiting) return <p className="text-graphite p-8">Opening the job …</p>;
  const { build } = data;
  const { problem, demand, answer } = planOf([build, ...companions.jobs.map((companion) => companion.build)]);
  const cut = attempt(() => layAnswer(problem, answer));
  // A plan that cannot be cut yet has no set-ups; the page says so.
  const layouts = isRefused(cut) ? [] : cut;
  const labelOf = (strip: string) => demand.of.get(strip)?.label ?? '';
  const list = setUpList(layouts, settingsOf(build), { ...build.shop, display }, labelOf);
  return (
    <Screen className="max-w-[980px]! overflow-x-auto bg-white px-8 py-5 print:max-w-none! print:overflow-visible">
      <div className="flex items-center gap-3 pb-2 print:hidden">
        <Link className="action" to={`/jobs/${id}/wood?${search}`}>
          To the boards
        </Link>
        <button
          type="button"
          className="action action-main ml-auto"
          disabled={list.length === 0}
          onClick={() => print()}
        >
          <Printer size={15} aria-hidden /> Print
        </button>
      </div>
      <Letterhead />
      <h1 className="text-[22px] font-semibold">Set-up list: {build.name}</h1>
      <p className="text-graphite pb-3 text-[14px]">
        Each setting is made once, in the order of the work. Pencil the number on every strip as it leaves the
        saw. The machines’ manuals and local rules come first.
      </p>
      {list.length === 0 && <p>No strip of this job has a board yet: break down its boards first.</p>}
      <ol className="flex flex-col">
        {list.map((setUp, i) => (
          <Setting
            key={`${setUp.kind} ${setUp.distance} ${setUp.bladeHeight}`}
            setUp={setUp}
            number={i + 1}
            display={display}
          />
        ))}
      </ol>
      <h2 className="pt-5 pb-1 text-[18px] font-semibold">The boards</h2>
      <div className="flex flex-col gap-4">
        {layouts.map((layout) => (
          <BoardSketch key={layout.board.id} layout={layout} labelOf={labelOf} display={display} />
        ))}
      </div>
    </Screen>
  );
}

function Setting({ setUp, number, display }: { setUp: SetUp; number: number; display: Display }) {
  return (
    <li className="border-line grid break-inside-avoid grid-cols-[30px_190px_150px_1fr] gap-x-4 border-t py-2">
      <span className="rule text-[17px]">{number}</span>
      <span>
        <span className="block font-semibold">{CUT_NAMES[setUp.kind]}</span>
        <span className="text-graphite text-[13.5px]">{setUp.saw}</span>
      </span>
      <span>
        {setUp.distance === undefined ? (
          <span className="text-graphite">as little as cleans it</span>
        ) : (
          <>
            <span className="label">
              {setUp.measuredBy === 'tape' ? 'cut away ' : `${setUp.measuredBy} at `}
            </span>
            <Measure value={setUp.distance} display={display} unit className="text-[19px]" />
          </>
        )}
        <span className="text-graphite block text-[13px]">
          blade {lengthText(setUp.bladeHeight, display)} high
        </span>
      </span>
      <span className="text-[14.5px]">
        <span className="block">
          <span className="rule">{setUp.count}</span> {setUp.count === 1 ? 'piece' : 'pieces'};{' '}
          {setUp.against}
        </span>
        {setUp.pieces.map(({ board, labels }) => (
          <span key={board} className="block">
            <span className="inline-block h-3 w-3 border border-black align-[-1px]" /> board {board}:{' '}
            <span className="rule">{labels.join(', ')}</span>
          </span>
        ))}
        {setUp.caution && (
          <span className="border-red mt-1 block border-l-2 pl-2 text-[13.5px]">
            Caution. {setUp.caution}
          </span>
        )}
      </span>
    </li>
  );
}

const SHEET_PX = 900;

/** A board as a line drawing to scale, for paper. */
function BoardSketch({
  layout,
  labelOf,
  display,
}: {
  layout: BoardLayout;
  labelOf: (strip: string) => string;
  display: Display;
}) {
  const { board } = layout;
  const k = SHEET_PX / board.length.mm;
  const flip = (y: number, width: number) => (board.width.mm - y - width) * k;
  return (
    <figure className="break-inside-avoid">
      <figcaption className="text-[14px]">
        <span className="rule">{board.label}</span> {speciesName(board.species)},{' '}
        {lengthText(board.length.mm, display)} × {lengthText(board.width.mm, display)} ×{' '}
        {lengthText(board.thickness.mm, display)}
      </figcaption>
      <svg
        viewBox={`-1 -1 ${SHEET_PX + 2} ${board.width.mm * k + 2}`}
        className="w-full"
        role="img"
        aria-label={`Board ${board.label} with its cuts`}
      >
        <rect width={SHEET_PX} height={board.width.mm * k} fill="none" stroke="#22272a" />
        {layout.kerfs.map((kerf) => (
          <rect
            key={`${kerf.x} ${kerf.y}`}
            x={kerf.x * k}
            y={flip(kerf.y, kerf.width)}
            width={Math.max(0.7, kerf.length * k)}
            height={Math.max(0.7, kerf.width * k)}
            fill="#22272a"
          />
        ))}
        {(board.faults ?? []).map((fault) => (
          <rect
            key={fault.id}
            x={fault.x * k}
            y={flip(fault.y, fault.width)}
            width={fault.length * k}
            height={fault.width * k}
            fill="none"
            stroke="#535b60"
            strokeDasharray="3 2"
          />
        ))}
        {layout.sections.flatMap(({ lanes }) =>
          lanes.map((lane) => (
            <text
              key={lane[0].strip.id}
              x={(lane[0].x + lane[0].length / 2) * k}
              y={flip(lane[0].y, lane[0].width / 2) + 5}
              fontSize={14}
              textAnchor="middle"
              className="rule"
            >
              {lane.map((laid) => labelOf(laid.strip.id)).join(' + ')}
            </text>
          )),
        )}
      </svg>
    </figure>
  );
}
