import { createSlice, type Draft, original, type PayloadAction } from '@reduxjs/toolkit';
import type { JobReply } from '../../contract/api';
import { type BuildDocument, type Edit, type Finding, type Phrase, isRefused } from '../../core/document';
import { applyEdit } from '../../core/edit';
import type { PlannedGlueUp, PressureAnswer } from '../../core/glueup';
import { asFlattening, glueUps } from '../../core/steps';
import type { ChainPlace, JobOutlook } from '../../core/view';

/** How well the open job is kept: stored on the server, on its way, only in this browser, or in conflict. */
export type Keeping = 'stored' | 'storing' | 'kept here' | 'conflict';

/** Two builds made from one version: this browser's and the one that was stored first. */
export interface Conflict {
  mine: BuildDocument;
  theirs: JobReply;
}

/** What of a glue-up the bench and the card show. */
export type GlueView = 'layUp' | 'clamps' | 'glue' | 'aids' | 'pace' | 'after';

/** The open job: its build with undo and redo, what is chosen on the screen, and the last prediction. */
export interface JobState {
  id?: string;
  /** Version of the stored build that `build` was made from. */
  version: number;
  build?: BuildDocument;
  past: BuildDocument[];
  future: BuildDocument[];
  /** Edits with the same mark, one after the other, are one step of undo. */
  lastMark?: string;
  step?: string;
  piece?: string;
  underside: boolean;
  /** What the joints show is drawn on them. */
  seams: boolean;
  outlook?: JobOutlook;
  glueView: GlueView;
  /** The chosen joint and the chosen clamp or aid of the glue-up. */
  joint: number;
  clamp?: string;
  /** The shown glue-up as planned, and the pressure along its lines, with the step they are of. */
  planned?: { step: string; plan?: PlannedGlueUp };
  pressure?: { step: string; answer: PressureAnswer; stale: boolean };
  /** The place of the chain where a step is being put in: its menu is open. `line` begins a line of its own. */
  adding?: ChainPlace | 'line';
  keeping: Keeping;
  conflict?: Conflict;
  /** Why the last edit could not be carried out. */
  refused?: Phrase[];
}

const MOST_UNDO = 200;
const initialState: JobState = {
  version: 0,
  past: [],
  future: [],
  underside: false,
  seams: false,
  glueView: 'layUp',
  joint: 1,
  keeping: 'stored',
};

/** The edits that put one step in: it is what the maker wants to see. */
const PUTS_IN: ReadonlySet<Edit['do']> = new Set(['addStep', 'addLine', 'duplicateStep']);

/** When the chosen step is gone, the one before it, the flattening or the last step takes its place on the bench. */
const keepStep = (state: Draft<JobState>, before?: BuildDocument): void => {
  const steps = state.build?.steps ?? [];
  if (steps.some(({ id }) => id === state.step)) return;
  const gone = before?.steps.find(({ id }) => id === state.step);
  const maker = steps.find(({ output }) => output === gone?.inputs[0]);
  if (maker) {
    state.step = maker.id;
    return;
  }
  state.step = (steps.find((step) => asFlattening(step)) ?? steps.at(-1))?.id;
};

/** The build as it stands, not immer's stand-in for it: edits share its parts by reference. */
const present = (state: Draft<JobState>): BuildDocument | undefined => original(state)?.build;

const replace = (state: Draft<JobState>, next: BuildDocument, mark?: string): void => {
  const before = present(state);
  if (!before || next === before) return;
  if (!mark || mark !== state.lastMark) state.past = [...state.past.slice(-MOST_UNDO + 1), before];
  state.lastMark = mark;
  state.future = [];
  state.build = next;
  state.keeping = 'storing';
  state.refused = undefined;
};

const slice = createSlice({
  name: 'job',
  initialState,
  reducers: {
    /** A job was read from the server. Choices are kept when it is the one already open. */
    opened(state, { payload }: PayloadAction<JobReply>) {
      const same = state.id === payload.id;
      const { step, piece, underside, glueView } = state;
      const keep = same && payload.build.steps.some(({ id }) => id === step);
      Object.assign(state, initialState, {
        id: payload.id,
        version: payload.version,
        build: payload.build,
        glueView,
      });
      const shown = glueUps(payload.build).at(-1) ?? payload.build.steps.at(-1);
      if (payload.damaged)
        state.refused = [
          `Version ${payload.damaged.version} of this job was damaged in the database. This is version ${payload.damaged.instead}, the newest that can be read.`,
        ];
      Object.assign(state, keep ? { step, piece, underside } : { step: shown?.id });
    },
    closed: () => initialState,
    edited(state, { payload }: PayloadAction<{ edit: Edit; mark?: string }>) {
      const build = present(state);
      if (!build) return;
      const next = applyEdit(build, payload.edit);
      if (isRefused(next)) state.refused = next.refused;
      else replace(state, next, payload.mark);
      keepStep(state, build);
      if (isRefused(next) || !PUTS_IN.has(payload.edit.do)) return;
      const known = new Set(build.steps.map(({ id }) => id));
      state.step = next.steps.find(({ id }) => !known.has(id))?.id ?? state.step;
      state.piece = undefined;
    },
    /** A kept build takes the place of the present one; that can be undone too. */
    broughtBack(state, { payload }: PayloadAction<BuildDocument>) {
      replace(state, payload);
      keepStep(state);
    },
    undone(state) {
      const before = present(state);
      const previous = state.past.at(-1);
      if (!previous || !before) return;
      state.future = [before, ...state.future];
      state.past = state.past.slice(0, -1);
      state.build = previous;
      state.lastMark = undefined;
      state.keeping = 'storing';
      keepStep(state);
    },
    redone(state) {
      const before = present(state);
      const [next, ...rest] = state.future;
      if (!next || !before) return;
      state.past = [...state.past, before];
      state.future = rest;
      state.build = next;
      state.lastMark = undefined;
      state.keeping = 'storing';
      keepStep(state);
    },
    settled(state) {
      state.lastMark = undefined;
    },
    stepChosen(state, { payload }: PayloadAction<string>) {
      if (state.step !== payload) {
        state.joint = 1;
        state.clamp = undefined;
      }
      state.step = payload;
      state.lastMark = undefined;
    },
    /** The menu of steps is opened at a place of the chain, or closed. */
    addingAt(state, { payload }: PayloadAction<ChainPlace | 'line' | undefined>) {
      state.adding = payload;
    },
    glueViewed(state, { payload }: PayloadAction<GlueView>) {
      state.glueView = payload;
      state.clamp = undefined;
    },
    jointChosen(state, { payload }: PayloadAction<number>) {
      state.joint = payload;
    },
    clampChosen(state, { payload }: PayloadAction<string | undefined>) {
      state.clamp = payload;
    },
    gluePlanned(state, { payload }: PayloadAction<NonNullable<JobState['planned']>>) {
      state.planned = payload;
      if (state.pressure && state.pressure.step !== payload.step) state.pressure = undefined;
      else if (state.pressure) state.pressure.stale = true;
    },
    pressureFound(state, { payload }: PayloadAction<NonNullable<JobState['pressure']>>) {
      if (state.planned?.step === payload.step) state.pressure = payload;
    },
    pieceChosen(state, { payload }: PayloadAction<string | undefined>) {
      state.piece = payload;
    },
    turnedOver(state) {
      state.underside = !state.underside;
    },
    seamsShown(state) {
      state.seams = !state.seams;
    },
    predicted(state, { payload }: PayloadAction<JobOutlook>) {
      // A build that stops early keeps the last good scene on the bench.
      const outlook = payload.scene ? payload : { ...payload, scene: original(state)?.outlook?.scene };
      Object.assign(state, { outlook });
    },
    /** The findings again, with the ways out that were played forward. */
    offered(state, { payload }: PayloadAction<Finding[]>) {
      if (state.outlook) state.outlook.findings = payload;
    },
    /** The prediction itself failed: said, with the last good one left on the screen. */
    notPredicted(state, { payload }: PayloadAction<string>) {
      state.refused = [`This could not be predicted: ${payload}`];
    },
    /** An unsent draft of this browser is shown over what is stored; it is kept already. */
    draftShown(state, { payload }: PayloadAction<BuildDocument>) {
      replace(state, payload);
      state.keeping = 'kept here';
      keepStep(state);
    },
    /** Something of this job waits still. */
    notAllStored(state) {
      if (state.keeping === 'stored') state.keeping = 'storing';
    },
    /** The server stored `build` as `version`; newer edits may be under way already. */
    stored(state, { payload }: PayloadAction<{ id: string; version: number; build: BuildDocument }>) {
      // A late answer to an earlier write never takes the job back.
      if (state.id !== payload.id || payload.version < state.version) return;
      state.version = payload.version;
      if (present(state) === payload.build) state.keeping = 'stored';
    },
    /** The server will not take this build, now or later: the reason, until the next edit. */
    refusedByServer(state, { payload }: PayloadAction<string>) {
      state.keeping = 'kept here';
      state.refused = [payload];
    },
    /** This browser keeps nothing (private windows, a full disk): only the server does then. */
    keptNowhere(state) {
      state.refused = ['This browser cannot keep unsent changes; they are safe once it says “stored”.'];
    },
    keptHere(state) {
      if (state.keeping === 'storing') state.keeping = 'kept here';
    },
    conflicted(state, { payload }: PayloadAction<Conflict>) {
      state.keeping = 'conflict';
      state.conflict = payload;
    },
    /** The maker chose a side. The other stays among the kept versions. */
    conflictSettled(state, { payload }: PayloadAction<'mine' | 'theirs'>) {
      if (!state.conflict) return;
      const { mine, theirs } = state.conflict;
      state.conflict = undefined;
      state.version = theirs.version;
      state.build = payload === 'mine' ? mine : theirs.build;
      state.past = [...state.past, payload === 'mine' ? theirs.build : mine];
      state.keeping = payload === 'mine' ? 'storing' : 'stored';
      keepStep(state);
    },
  },
});

export const jobActions = slice.actions;
export const jobReducer = slice.reducer;
