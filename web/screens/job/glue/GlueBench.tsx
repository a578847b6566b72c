import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import type { BuildDocument, PlacedClamp } from '../../../../core/document';
import type { ClampPlan, PlannedGlueUp, PressureAnswer } from '../../../../core/glueup';
import type { BenchScene } from '../../../../core/review';
import type { GlueStep } from '../../../../core/steps';
import { useDisplay } from '../../../app/display';
import { previewPressure } from '../../../app/gluing';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { AidMarks } from '../../../drawing/AidMarks';
import { ClampMarks, CrossCauls } from '../../../drawing/ClampMarks';
import { PressureCurve } from '../../../drawing/PressureCurve';
import { PressureRibbons } from '../../../drawing/PressureRibbons';
import { WoodViews } from '../../../drawing/WoodViews';
import { glueFrame, glueView } from '../../../drawing/glue-frame';
import { layOne } from '../../../drawing/layout';
import { usePlanGlue } from './parts';
import { gripped } from '../../../drawing/grip';

/** Room for clamp heads and their numbers around the piece, and for the curve below, px. */
const AROUND = { left: 62, top: 56, right: 62, bottom: 52 };
const CURVE = 76;

/** All clamps of a plan as if put by hand, so that one of them can be moved. */
export const placedClamps = (plan: ClampPlan): PlacedClamp[] =>
  plan.clamps.map(({ id, at, side, forceN, set }) => ({
    id,
    at: { mm: Math.round(at * 100) / 100 },
    side,
    forceN,
    ...(set ? { set: set.id } : {}),
  }));

/** The glue-up on the bench: wood with its joints as lines, pressure on them, clamps, cauls and aids. */
export function GlueBench({
  build,
  step,
  scene,
  planned,
  room,
}: {
  build: BuildDocument;
  step: GlueStep;
  scene: BenchScene;
  planned: PlannedGlueUp;
  room: { width: number; height: number };
}) {
  const dispatch = useAppDispatch();
  const planGlue = usePlanGlue(step);
  const display = useDisplay();
  const view = useAppSelector(({ job }) => job.glueView);
  const joint = useAppSelector(({ job }) => job.joint);
  const chosen = useAppSelector(({ job }) => job.clamp);
  const pressure = useAppSelector(({ job }) => job.pressure);
  const [preview, setPreview] = useState<PressureAnswer>();
  const asked = useRef(0);
  const { glueUp, clamps, aids } = planned;
  const curve = view === 'clamps' && !glueUp.askew;
  const layout = useMemo(() => {
    const view = glueView(glueUp);
    const bottom = AROUND.bottom + (curve ? CURVE : 0);
    // Cauls lie outside the piece: how much room they take shows once the scale is near.
    const bare = layOne(scene, view, room, { ...AROUND, bottom });
    const caul = clamps.edgeCaulMm / bare.mmPerPx;
    const lying = glueUp.axes.press !== 0;
    return layOne(scene, view, room, {
      left: AROUND.left + (lying ? 0 : caul),
      right: AROUND.right + (lying ? 0 : caul),
      top: AROUND.top + (lying ? caul : 0),
      bottom: bottom + (lying ? caul : 0),
    });
  }, [scene, glueUp, room, curve, clamps.edgeCaulMm]);
  const frame = useMemo(
    () => glueFrame(glueUp, scene, layout.views[0], layout.mmPerPx),
    [glueUp, scene, layout],
  );
  const stepMm = display.system === 'mm' ? 5 : 25.4 / 4;
  const answer = preview ?? (pressure?.step === step.id ? pressure.answer : undefined);
  const found = answer?.joints.find((each) => each.joint === joint);

  const moved = (id: string, at: number): PlacedClamp[] =>
    placedClamps(clamps).map((clamp) => (clamp.id === id ? { ...clamp, at: { mm: at } } : clamp));
  const drag = (id: string, at: number) => {
    const mine = ++asked.current;
    const plan = {
      ...clamps,
      clamps: clamps.clamps.map((clamp) => (clamp.id === id ? { ...clamp, at } : clamp)),
    };
    void previewPressure(glueUp, plan, build.shop).then((quick) => {
      if (quick && mine === asked.current) setPreview(quick);
    });
  };
  const drop = (id: string, at: number) => {
    asked.current += 1;
    setPreview(undefined);
    // Where a clamp is put is set to the shop's step.
    const mm = Math.round(at / (stepMm / 4)) * (stepMm / 4);
    planGlue({ clamps: moved(id, mm) });
  };
  const clampKey = (id: string, event: KeyboardEvent) => {
    const clamp = clamps.clamps.find((each) => each.id === id);
    if (!clamp || event.ctrlKey || event.metaKey || event.altKey) return;
    const by = { ArrowLeft: -stepMm, ArrowRight: stepMm, ArrowUp: stepMm, ArrowDown: -stepMm }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      dispatch(jobActions.clampChosen(id));
      drop(id, Math.min(glueUp.lengthMm, Math.max(0, clamp.at + by)));
    } else if (event.key === 'Delete') {
      event.preventDefault();
      planGlue({ clamps: placedClamps(clamps).filter((each) => each.id !== id) });
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      dispatch(jobActions.clampChosen(id));
    }
  };
  const places = () =>
    aids.aids.map((aid) => ({ joint: aid.joint, at: { mm: Math.round(aid.at * 100) / 100 } }));
  const planAids = (next: { joint: number; at: { mm: number } }[]) =>
    planGlue({ aids: { ...step.plan?.aids, kind: aids.kind, places: next } });
  const aidKey = (i: number, event: KeyboardEvent) => {
    const by = { ArrowLeft: -stepMm, ArrowRight: stepMm, ArrowUp: stepMm, ArrowDown: -stepMm }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      planAids(places().map((place, k) => (k === i ? { ...place, at: { mm: place.at.mm + by } } : place)));
    } else if (event.key === 'Delete') {
      event.preventDefault();
      planAids(places().filter((_, k) => k !== i));
    }
  };
  return (
    <>
      <WoodViews build={build} step={scene.step} layout={layout} />
      <svg
        ref={gripped}
        className="absolute top-0 left-0"
        width={room.width}
        height={room.height}
        data-testid="glue-bench"
        data-quick={answer?.quick}
      >
        {planned.clamps.crossCauls.pairs > 0 && view === 'clamps' && (
          <CrossCauls glueUp={glueUp} plan={clamps} frame={frame} />
        )}
        <PressureRibbons
          glueUp={glueUp}
          answer={view === 'clamps' ? answer : undefined}
          frame={frame}
          chosen={joint}
          stale={pressure?.stale ?? false}
          onChoose={(next) => dispatch(jobActions.jointChosen(next))}
        />
        {(view === 'clamps' || view === 'pace') && !glueUp.askew && (
          <ClampMarks
            glueUp={glueUp}
            plan={clamps}
            frame={frame}
            chosen={chosen}
            display={display}
            movable={view === 'clamps'}
            onChoose={(id) => dispatch(jobActions.clampChosen(id))}
            onDrag={drag}
            onDrop={drop}
            onKey={clampKey}
          />
        )}
        {view === 'aids' && (
          <AidMarks
            glueUp={glueUp}
            aids={aids}
            frame={frame}
            chosen={chosen}
            display={display}
            onChoose={(id) => dispatch(jobActions.clampChosen(id))}
            onDrop={(i, at) =>
              planAids(places().map((place, k) => (k === i ? { ...place, at: { mm: at } } : place)))
            }
            onKey={aidKey}
          />
        )}
        {glueUp.lines.map((line) => {
          const [a, b] = [frame.point(0, line.at), frame.point(glueUp.lengthMm, line.at)];
          const { x, y } = frame.lying || a.y < b.y ? a : b;
          return (
            <text
              key={line.joint}
              x={frame.lying ? x - 10 : x}
              y={frame.lying ? y + 4 : y - 6}
              textAnchor={frame.lying ? 'end' : 'middle'}
              className={`rule text-[12.5px] ${line.joint === joint ? 'fill-chalk' : 'fill-graphite'}`}
            >
              {line.joint}
            </text>
          );
        })}
      </svg>
      {glueUp.askew && (
        <p className="text-graphite absolute bottom-3 left-4 text-[13.5px]">
          Parts lie askew: no clamp presses all joints at once. Band clamps, tape or rubbed joints; no forces
          are planned.
        </p>
      )}
      {curve && found && (
        <PressureCurve
          joint={found}
          wanted={clamps.wantedMPa}
          length={glueUp.lengthMm}
          left={frame.lying ? frame.box.left : 70}
          width={frame.lying ? frame.box.width : Math.max(100, room.width - 140)}
          display={display}
          quick={answer?.quick ?? false}
        />
      )}
    </>
  );
}
