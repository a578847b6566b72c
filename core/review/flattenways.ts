import { tasksOf } from '../bench';
import { type BuildDocument, type Edit, isRefused, type Phrase } from '../document';
import { applyEdit } from '../edit';
import {
  AWAY_DAYS,
  gluingOf,
  limitOf,
  type Machine,
  machineFacts,
  machinesThat,
  MACHINE_KINDS,
  paidMachineOf,
  takesEndGrain,
} from '../kit';
import { run } from '../run';
import { CAUSES, lostTo, type Vec3 } from '../solid';
import {
  asFlattening,
  asPlayed,
  type FlattenStep,
  greatestSize,
  handMinutes,
  leastSize,
  passCount,
  type Timeline,
  travelOf,
} from '../steps';
import { counted, sumOf } from '../units';
import { inSections, isEndGrain } from './limits';
import { refusal } from './asked';
import { findingsOf } from './review';

/** One way to flatten what a step flattens, played forward. */
export interface FlattenWay {
  id: string;
  name: string;
  /** It is how it is done now. */
  now: boolean;
  /** Why it does not go, with the number; the rest is missing then. */
  why?: Phrase[];
  /** What is done: passes, tracks, area. */
  how: Phrase[];
  /** Wood that goes, hands' time and days away. */
  lostMm3?: number;
  minutes?: number;
  days?: number;
  priceMinor?: number;
  /** What goes wrong with it most; and new warnings it would bring. */
  risk: string;
  warnings?: number;
  edit?: Edit;
}

/** Taking a step to a machine, with as much off as that takes at least. */
function toMachine(step: FlattenStep, machine: Machine): Edit {
  const use: Edit = { do: 'useMachine', step: step.id, machine: machine.id };
  const least = limitOf(machine, 'takes');
  const edits: Edit[] = [
    use,
    ...(least > step.top.mm + step.bottom.mm
      ? [
          {
            do: 'setStep' as const,
            step: step.id,
            change: { top: { mm: least / 2 }, bottom: { mm: least / 2 } },
          },
        ]
      : []),
  ];
  return edits.length === 1 ? use : { do: 'many', edits };
}

interface Played {
  build: BuildDocument;
  timeline: Timeline;
  /** All wood lost, mm3; minutes of hands in all; warnings. */
  lostMm3: number;
  minutes: number;
  warnings: Set<string>;
}

function play(build: BuildDocument): Played {
  const timeline = run(build);
  return {
    build: asPlayed(build, timeline),
    timeline,
    lostMm3: sumOf(CAUSES, (cause) => lostTo(timeline.ledger, cause)),
    minutes: sumOf(
      tasksOf('', build, timeline).filter(({ kind }) => kind === 'work'),
      ({ minutes }) => minutes,
    ),
    warnings: new Set(
      findingsOf(build, timeline)
        .filter(({ severity }) => severity !== 'note')
        .map(({ code, step }) => `${code} ${step}`),
    ),
  };
}

/** How a machine does it, in numbers: passes, tracks over a face, what area. */
function howOf({ build, timeline }: Played, id: string): Phrase[] {
  const step = build.steps.find((each) => each.id === id);
  const entry = timeline.steps.find((each) => each.id === id);
  const machine = step && build.shop.machines.find(({ id: own }) => own === (step as FlattenStep).machine);
  if (!step || !entry || !machine) return [];
  if (machineFacts(machine).away) return ['goes away and comes back'];
  const passes = passCount(step, entry, build) ?? 0;
  const travel = travelOf(step, entry, build);
  const words: Phrase[] = [counted(passes, 'pass', 'passes')];
  if (travel && travel.tracks > 1) {
    const area = travel.longMm * travel.wideMm;
    words.push(
      machineFacts(machine).byHand === 'places'
        ? ` of ${counted(travel.tracks * Math.max(1, Math.ceil(travel.longMm / STROKE_MM)), 'stroke')} over `
        : ` of ${counted(travel.tracks, 'path')} over `,
      { mm2: area },
    );
    if (travel.bitMm !== undefined)
      words.push(
        ', a bit of ',
        { mm: travel.bitMm },
        ', ',
        { mm: travel.stepMm },
        ' from path to path, rails ',
        {
          mm: travel.longMm,
        },
        ' long at least',
      );
  }
  return words;
}
/** What an arm planes in one stroke, mm; common practice. */
const STROKE_MM = 700;

/**
 * Every way in which this shop could flatten what a step flattens, each played forward: wood, time, money, what goes wrong;
 * and those that do not go, with the number that says so. The way it is done now comes first.
 */
export function flattenWays(asked: BuildDocument, id: string): FlattenWay[] {
  const now = play(asked);
  const { build } = now;
  const step = asFlattening(build.steps.find((each) => each.id === id));
  const entry = now.timeline.steps.find((each) => each.id === id);
  if (!step || !entry || entry.entered.length === 0) return [];
  const size: Vec3 = [
    leastSize(entry.entered, 'length'),
    greatestSize(entry.entered, 'width'),
    greatestSize(entry.entered, 'thickness'),
  ];
  const endGrain = entry.entered.some(isEndGrain);
  const machines = machinesThat(build.shop, 'flatten');
  const stepMinutes = handMinutes(step, entry, { build, pieces: entry.pieces.length, times: 1 });
  const stepLost = sumOf(CAUSES, (cause) => lostTo(entry.lost, cause));
  const played = (edit: Edit, machine: Machine): Partial<FlattenWay> => {
    const next = applyEdit(asked, edit);
    if (isRefused(next)) return { how: [], why: next.refused };
    const after = play(next);
    return {
      how: howOf(after, id),
      lostMm3: stepLost + after.lostMm3 - now.lostMm3,
      minutes: stepMinutes + after.minutes - now.minutes,
      warnings: [...after.warnings].filter((each) => !now.warnings.has(each)).length,
      ...awayOf(machine, entry.pieces.length),
      edit,
    };
  };
  const ways: FlattenWay[] = [];
  for (const machine of machines) {
    const here = machine.id === step.machine;
    const base = { id: machine.id, name: machine.name, now: here, risk: machineFacts(machine).risk ?? '' };
    const why =
      endGrain && !takesEndGrain(machine)
        ? ([`knives do not go over end grain: `, { mm: size[0] }, ' by ', { mm: size[1] }] as Phrase[])
        : refusal(machine, size, entry.least[2]);
    if (here)
      ways.unshift({
        ...base,
        ...(why ? { why } : {}),
        how: howOf(now, id),
        lostMm3: stepLost,
        minutes: stepMinutes,
        warnings: 0,
        ...awayOf(machine, entry.pieces.length),
      });
    else if (why) ways.push({ ...base, why, how: [] });
    else ways.push({ ...base, how: [], ...played(toMachine(step, machine), machine) });
    const fix =
      machine.maxWidth.mm > 0 && size[1] > machine.maxWidth.mm && !endGrain
        ? inSections(step, machine.maxWidth.mm, { build: asked, timeline: now.timeline })[0]
        : undefined;
    if (fix && usesFor(asked, fix.edit, machine))
      ways.push({
        ...base,
        id: `${machine.id}:sections`,
        name: `${machine.name}, in sections`,
        now: false,
        ...played(fix.edit, machine),
        how: [fix.label.charAt(0).toLowerCase() + fix.label.slice(1)],
        risk: `The last joints are flattened by hand. ${base.risk}`,
      });
  }
  // An earlier kit tells of it under how the shop glues alone: it is no machine that a step can name.
  const { paid } = gluingOf(build.shop);
  if (paid && !paidMachineOf(build.shop))
    ways.push({
      id: 'paid',
      name: MACHINE_KINDS['paid machine'].name,
      now: false,
      why: [
        'the Kit has it under how this shop glues, ',
        { mm: paid.maxWidth.mm },
        ' wide. Put it among the machines there',
      ],
      how: [],
      risk: '',
    });
  return ways;
}

/** Whether the sections that an edit makes go over a machine. */
function usesFor(build: BuildDocument, edit: Edit, machine: Machine): boolean {
  const next = applyEdit(build, edit);
  if (isRefused(next)) return false;
  const before = new Set(build.steps.map(({ id }) => id));
  return next.steps.some((step) => !before.has(step.id) && asFlattening(step)?.machine === machine.id);
}

/** Days and money of a machine that stands elsewhere. */
const awayOf = (machine: Machine, pieces: number): Pick<FlattenWay, 'days' | 'priceMinor'> =>
  machineFacts(machine).away
    ? {
        days: machine.days ?? AWAY_DAYS,
        ...(machine.priceMinor === undefined && machine.transportMinor === undefined
          ? {}
          : { priceMinor: pieces * (machine.priceMinor ?? 0) + (machine.transportMinor ?? 0) }),
      }
    : {};
