import { memo, useCallback, useMemo, useRef, type KeyboardEvent } from 'react';
import type { BuildDocument, Step } from '../../../core/build';
import { glueOf } from '../../../core/build/graph';
import type { BenchScene, Outlook } from '../../../core/review';
import { speciesName } from '../../../core/wood/species';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { DimensionLine } from '../../drawing/DimensionLine';
import { JointMarks } from '../../drawing/JointMarks';
import { layBench, onFace } from '../../drawing/layout';
import { useRoom } from '../../drawing/use-room';
import { StripHandles, type Handle } from '../../drawing/StripHandles';
import { TriangleMark } from '../../drawing/TriangleMark';
import { WoodViews } from '../../drawing/WoodViews';
import { GlueBench } from './glue/GlueBench';
import { GlueTools } from './glue/GlueTools';
import { StripTools } from './StripTools';
import { pieceAction } from './strip-actions';

/** The piece at the chosen step in true projection, and what can be taken hold of. */
export const Bench = memo(function Bench({
  build,
  outlook,
  step,
}: {
  build: BuildDocument;
  outlook: Outlook;
  step: Step;
}) {
  const dispatch = useAppDispatch();
  const display = useDisplay();
  const underside = useAppSelector(({ job }) => job.underside);
  const piece = useAppSelector(({ job }) => job.piece);
  const seams = useAppSelector(({ job }) => job.seams);
  const glueView = useAppSelector(({ job }) => job.glueView);
  const planned = useAppSelector(({ job }) => job.planned);
  const { room, size } = useRoom();
  const face = useRef<HTMLCanvasElement>(null);
  const { scene } = outlook;
  const layout = useMemo(
    () => scene && size.width > 0 && layBench(scene, underside ? 'underside' : 'face', size),
    [scene, size, underside],
  );
  const handles = useMemo(
    () => (scene && layout ? handlesFor(build, outlook, scene, layout) : []),
    [build, outlook, scene, layout],
  );
  const keepFace = useCallback((canvas: HTMLCanvasElement | null) => void (face.current = canvas), []);
  const shown = outlook.steps.find(({ id }) => id === scene?.step);
  const laidUp =
    shown?.kind === 'glue' &&
    step.kind === 'glue' &&
    step.along === 'width' &&
    glueOf(build, step.id)?.id === step.id;
  const onKey = (id: string, event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const action = pieceAction(build, step, id, event.key);
    if (!action) return;
    event.preventDefault();
    if ('edit' in action) dispatch(jobActions.edited({ edit: action.edit }));
  };
  const glued =
    step.kind === 'glue' && glueView !== 'layUp' && planned?.step === step.id && scene?.step === step.id
      ? planned.plan
      : undefined;
  const span = (axis: 0 | 1 | 2) => (scene ? scene.box.max[axis] - scene.box.min[axis] : 0);
  const loose = (scene?.pieces.length ?? 0) > 1;
  return (
    <section aria-label="Bench" className="sheet flex min-h-0 min-w-0 flex-1 flex-col">
      <div ref={room} className="relative min-h-0 flex-1 overflow-hidden" data-testid="bench">
        {scene && layout && glued && step.kind === 'glue' && (
          <GlueBench build={build} step={step} scene={scene} planned={glued} room={size} />
        )}
        {scene && layout && !glued && (
          <>
            <WoodViews build={build} step={scene.step} layout={layout} canvasRef={keepFace} />
            <div
              className="absolute"
              style={{
                left: layout.face.left,
                top: layout.face.top,
                width: layout.face.width,
                height: layout.face.height,
              }}
            >
              <StripHandles
                handles={handles}
                chosen={piece}
                sortable={laidUp && !underside}
                face={face}
                onChoose={(id) => dispatch(jobActions.pieceChosen(id))}
                onMove={(from, to) =>
                  dispatch(jobActions.edited({ edit: { do: 'moveStrip', step: step.id, from, to } }))
                }
                onKey={onKey}
              />
              {seams && scene.step === step.id && outlook.seams && (
                <JointMarks readings={outlook.seams} scene={scene} layout={layout} display={display} />
              )}
              {step.kind === 'glue' && step.mark === 'triangle' && scene.step === step.id && (
                <TriangleMark width={layout.face.width} height={layout.face.height} />
              )}
              {step.kind === 'glue' &&
                step.mark === 'numbers' &&
                scene.step === step.id &&
                handles.map(({ id, left, top, width, height }, i) => (
                  <span
                    key={id}
                    aria-hidden
                    className="rule bg-sheet/80 pointer-events-none absolute -translate-x-1/2 -translate-y-1/2 rounded-sm px-1 text-[13px] leading-4"
                    style={{ left: left + width / 2, top: top + height / 2 }}
                  >
                    {i + 1}
                  </span>
                ))}
            </div>
            {!loose && (
              <>
                <DimensionLine
                  from={layout.face.left}
                  length={layout.face.width}
                  at={layout.face.top - 28}
                  mm={span(0)}
                  display={display}
                />
                <DimensionLine
                  from={layout.face.top}
                  length={layout.face.height}
                  at={layout.face.left - 40}
                  vertical
                  mm={span(1)}
                  display={display}
                />
                <ThicknessMark layout={layout} mm={span(2)} />
              </>
            )}
          </>
        )}
        {!scene && (
          <p className="text-graphite p-6">
            The drawing appears as soon as the first step can be carried out.
          </p>
        )}
      </div>
      {glued && step.kind === 'glue' ? (
        <GlueTools step={step} planned={glued} />
      ) : (
        <StripTools build={build} step={step} />
      )}
    </section>
  );
});

function ThicknessMark({ layout, mm }: { layout: NonNullable<ReturnType<typeof layBench>>; mm: number }) {
  const display = useDisplay();
  return (
    <DimensionLine
      from={layout.end.left}
      length={layout.end.width}
      at={layout.face.top - 28}
      mm={mm}
      display={display}
    />
  );
}

/** What can be taken hold of at a step: strips before and in their glue-up, slices in theirs. */
function handlesFor(
  build: BuildDocument,
  outlook: Outlook,
  scene: BenchScene,
  layout: NonNullable<ReturnType<typeof layBench>>,
): Handle[] {
  const shown = outlook.steps.find(({ id }) => id === scene.step);
  if (!shown || !['rip', 'mill', 'glue', 'slice', 'oblique', 'turn'].includes(shown.kind)) return [];
  // Several blanks of one glue-up lie side by side: each is taken hold of as a whole.
  const laid = scene.pieces.length > 1 ? undefined : shown.laid;
  const boxes =
    laid?.map((laid) => ({
      id: laid.piece,
      box: laid,
      turned: laid.endForEnd || laid.rollOver || laid.quarter === true,
      locked: laid.locked,
    })) ?? scene.pieces.map((piece) => ({ id: piece.id, box: piece.box, turned: false, locked: undefined }));
  if (shown.kind !== 'glue' && boxes.length < 2) return [];
  return boxes.map(({ id, box, turned, locked }, i) => {
    const slot = build.assemblies.flatMap(({ slots }) => slots).find((s) => s.id === id);
    const name = slot
      ? `Strip ${i + 1}, ${speciesName(slot.species)}${turned ? ', turned' : ''}${locked ? ', locked' : ''}`
      : `Part ${i + 1}${turned ? ', turned' : ''}`;
    return { id, name, turned, locked: locked ?? false, ...onFace(scene, layout, box) };
  });
}
