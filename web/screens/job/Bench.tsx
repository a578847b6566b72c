import { ZoomIn, ZoomOut } from 'lucide-react';
import { type KeyboardEvent, memo, useCallback, useEffect, useMemo, useRef } from 'react';
import type { BuildDocument, Step } from '../../../core/document';
import type { Outlook } from '../../../core/review';
import { asGlueUp } from '../../../core/steps';
import { heldPieces, laysByHand, laysStrips, partChanged } from '../../../core/view';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { DimensionLine } from '../../drawing/DimensionLine';
import { JointMarks } from '../../drawing/JointMarks';
import { type Handle, StripHandles } from '../../drawing/StripHandles';
import { TriangleMark } from '../../drawing/TriangleMark';
import { WoodViews } from '../../drawing/WoodViews';
import { layBench, onFace } from '../../drawing/layout';
import { useRoom } from '../../drawing/use-room';
import { useZoom } from '../../drawing/use-zoom';
import { StripTools } from './StripTools';
import { Tray } from './chain/Tray';
import { GlueBench } from './glue/GlueBench';
import { GlueTools } from './glue/GlueTools';
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
  const { room, size: space } = useRoom();
  const face = useRef<HTMLCanvasElement>(null);
  const { scene } = outlook;
  const least = useCallback(
    (within: { width: number; height: number }) => {
      const laid = scene && layBench(scene, 'face', within);
      if (!scene || !laid) return undefined;
      const heights = heldPieces(build, outlook, scene).map(({ box }) => onFace(scene, laid, box).height);
      return heights.length > 0 ? Math.min(...heights) : undefined;
    },
    [build, outlook, scene],
  );
  const { zoom, size, larger, smaller, toggle } = useZoom(space, least);
  const layout = useMemo(
    () => scene && size.width > 0 && layBench(scene, underside ? 'underside' : 'face', size),
    [scene, size, underside],
  );
  // Larger than its room, the drawing begins at the chosen part, else at its upper left corner.
  useEffect(() => {
    const view = room.current;
    if (!view || !layout || zoom <= 1) return;
    const part = view.querySelector<HTMLElement>('[data-strip][aria-pressed="true"]');
    const top = layout.face.top + (part?.offsetTop ?? 0);
    const left = layout.face.left + (part?.offsetLeft ?? 0);
    view.scrollTo({
      left: Math.max(0, left - 56),
      top: Math.max(0, top - (part ? view.clientHeight / 3 : 56)),
    });
  }, [room, layout, zoom, piece]);
  const handles = useMemo(
    () =>
      scene && layout
        ? heldPieces(build, outlook, scene).map(
            (held): Handle => ({ ...held, ...onFace(scene, layout, held.box) }),
          )
        : [],
    [build, outlook, scene, layout],
  );
  const glue = asGlueUp(step);
  const keepFace = useCallback((canvas: HTMLCanvasElement | null) => void (face.current = canvas), []);
  const shown = outlook.steps.find(({ id }) => id === scene?.step);
  const byHand = laysByHand(step) && !laysStrips(build, step);
  const laidUp = (byHand || laysStrips(build, step)) && shown?.laid !== undefined;
  const onKey = (id: string, event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const laid = shown?.laid?.map(({ piece: part }) => part);
    const action = pieceAction(build, step, id, { key: event.key, laid });
    if (!action) return;
    event.preventDefault();
    if ('edit' in action) dispatch(jobActions.edited({ edit: action.edit }));
  };
  const glued =
    glue && glueView !== 'layUp' && planned?.step === step.id && scene?.step === step.id
      ? planned.plan
      : undefined;
  const span = (axis: 0 | 1 | 2) => (scene ? scene.box.max[axis] - scene.box.min[axis] : 0);
  const loose = (scene?.pieces.length ?? 0) > 1;
  return (
    <section
      aria-label="Bench"
      className="sheet flex min-h-0 min-w-0 flex-1 flex-col max-lg:portrait:min-h-[46dvh] max-desk:h-[62dvh] max-desk:flex-none"
    >
      <div
        ref={room}
        className={`relative min-h-0 flex-1 ${zoom > 1 ? 'overflow-auto' : 'overflow-hidden'}`}
        data-testid="bench"
        onDoubleClick={toggle}
      >
        {/* What makes a drawing larger than its room slide. */}
        {zoom > 1 && (
          <span
            className="absolute top-0 left-0"
            style={{ width: size.width, height: size.height }}
            aria-hidden
          />
        )}
        {scene && layout && glued && glue && (
          <GlueBench build={build} step={glue} scene={scene} planned={glued} room={size} />
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
                onMove={(from, to) => {
                  const laid = shown?.laid?.map(({ piece: part }) => part) ?? [];
                  const edit = byHand
                    ? partChanged(build, { step: step.id, laid, piece: laid[from] }, { to })
                    : { do: 'moveStrip' as const, step: step.id, from, to };
                  if (edit) dispatch(jobActions.edited({ edit }));
                }}
                onKey={onKey}
              />
              {seams && scene.step === step.id && outlook.seams && (
                <JointMarks readings={outlook.seams} scene={scene} layout={layout} display={display} />
              )}
              {glue?.mark === 'triangle' && scene.step === step.id && (
                <TriangleMark width={layout.face.width} height={layout.face.height} />
              )}
              {glue?.mark === 'numbers' &&
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
      <div className="border-line desk:hidden flex items-center gap-2 border-t p-1.5">
        <button
          type="button"
          className="action h-11! w-11 justify-center px-0"
          aria-label="Drawn smaller"
          disabled={zoom <= 1}
          onClick={smaller}
        >
          <ZoomOut size={20} />
        </button>
        <button
          type="button"
          className="action h-11! w-11 justify-center px-0"
          aria-label="Drawn larger"
          onClick={larger}
        >
          <ZoomIn size={20} />
        </button>
        <button type="button" className="action h-11!" onClick={toggle}>
          {zoom > 1 ? 'The whole piece' : 'For fingers'}
        </button>
      </div>
      <Tray build={build} step={step} />
      {glued && glue ? <GlueTools step={glue} planned={glued} /> : <StripTools build={build} step={step} />}
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
