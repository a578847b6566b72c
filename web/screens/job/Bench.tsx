import { ZoomIn, ZoomOut } from 'lucide-react';
import {
  type ComponentProps,
  type KeyboardEvent,
  memo,
  useCallback,
  useLayoutEffect,
  useMemo,
  useRef,
} from 'react';
import { type BuildDocument, DIMENSIONS, type Step } from '../../../core/document';
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
import { type BenchLayout, layBench, onFace, standsBetter } from '../../drawing/layout';
import { useRoom } from '../../drawing/use-room';
import { inHand, useZoom } from '../../drawing/use-zoom';
import { useFingers } from '../../parts/use-phone';
import { StripTools } from './StripTools';
import { Tray } from './chain/Tray';
import { lazily } from '../../parts/lazily';
import { pieceAction } from './strip-actions';

const Pinch = lazily(() => import('../../drawing/Pinch'), 'Pinch');
type Pinched = Parameters<ComponentProps<typeof Pinch>['onPinch']>[0];
const GlueBench = lazily(() => import('./glue/GlueBench'), 'GlueBench');
const GlueTools = lazily(() => import('./glue/GlueTools'), 'GlueTools');

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
  const fingers = useFingers();
  const face = useRef<HTMLCanvasElement>(null);
  const { scene } = outlook;
  const glue = asGlueUp(step);
  const asGlued = glue !== undefined && glueView !== 'layUp';
  const upright = scene !== undefined && inHand(space) && standsBetter(scene, space);
  const least = useCallback(
    (within: { width: number; height: number }) => {
      const laid = scene && layBench(scene, 'face', within, upright);
      // A glue-up in its clamps is seen whole: no strip is taken hold of there.
      if (!scene || !laid || asGlued) return undefined;
      const sizes = heldPieces(build, outlook, { scene, display }).map(({ box }) => onFace(scene, laid, box));
      return sizes.length > 0
        ? Math.min(...sizes.map(({ width, height }) => Math.min(width, height)))
        : undefined;
    },
    [build, outlook, scene, display, upright, asGlued],
  );
  const { zoom, size, toggles, larger, smaller, toggle, pinched } = useZoom(space, least);
  const layout = useMemo(
    () => scene && size.width > 0 && layBench(scene, underside ? 'underside' : 'face', size, upright),
    [scene, size, underside, upright],
  );
  // What lies between two fingers stays between them: where that is on the drawing, and where in its room.
  const between = useRef<{ on: readonly number[]; at: readonly number[] }>(undefined);
  const onPinch = ({ at: [x, y], zoom: to, last }: Pinched) => {
    const view = room.current;
    if (!view) return;
    const box = view.getBoundingClientRect();
    const at = [x - box.left, y - box.top];
    const on = [(view.scrollLeft + at[0]) / zoom, (view.scrollTop + at[1]) / zoom];
    between.current = { on: between.current?.on ?? on, at };
    pinched(to);
    if (last) setTimeout(() => (between.current = undefined), 50);
  };
  // Larger than its room, the drawing begins at the chosen part, else at its upper left corner.
  useLayoutEffect(() => {
    const view = room.current;
    if (!view || !layout || zoom <= 1) return;
    if (between.current) {
      const { on, at } = between.current;
      view.scrollTo({ left: on[0] * zoom - at[0], top: on[1] * zoom - at[1] });
      return;
    }
    if (asGlued) return;
    const part = view.querySelector<HTMLElement>('[data-strip][aria-pressed="true"]');
    const top = layout.face.top + (part?.offsetTop ?? 0);
    const left = layout.face.left + (part?.offsetLeft ?? 0);
    view.scrollTo({
      left: Math.max(0, left - (part && layout.upright ? view.clientWidth / 3 : 56)),
      top: Math.max(0, top - (part && !layout.upright ? view.clientHeight / 3 : 56)),
    });
  }, [room, layout, zoom, piece, asGlued]);
  const handles = useMemo(
    () =>
      scene && layout
        ? heldPieces(build, outlook, { scene, display }).map(
            (held): Handle => ({ ...held, ...onFace(scene, layout, held.box) }),
          )
        : [],
    [build, outlook, scene, layout, display],
  );
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
    glue && asGlued && planned?.step === step.id && scene?.step === step.id ? planned.plan : undefined;
  const span = (axis: 0 | 1 | 2) => (scene ? scene.box.max[axis] - scene.box.min[axis] : 0);
  const loose = (scene?.pieces.length ?? 0) > 1;
  return (
    <section
      aria-label="Bench"
      id="bench"
      tabIndex={-1}
      className="sheet isolate flex min-h-0 min-w-0 flex-1 flex-col max-lg:portrait:min-h-[46dvh] max-desk:h-[62dvh] max-desk:flex-none"
    >
      <div
        ref={room}
        // A drawing that slides is slid by arrow keys, too.
        {...(zoom > 1 ? { tabIndex: 0, role: 'group', 'aria-label': 'Drawing' } : {})}
        className={`relative min-h-0 flex-1 ${zoom > 1 ? 'overflow-auto' : 'overflow-hidden'}`}
        data-testid="bench"
        onDoubleClick={toggle}
      >
        {fingers && <Pinch target={room} zoom={zoom} onPinch={onPinch} />}
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
                upright={layout.upright}
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
                <JointMarks
                  readings={outlook.seams}
                  order={shown?.laid?.map(({ piece: part }) => part) ?? []}
                  scene={scene}
                  layout={layout}
                  display={display}
                />
              )}
              {glue?.mark === 'triangle' && scene.step === step.id && (
                <TriangleMark
                  width={layout.face.width}
                  height={layout.face.height}
                  upright={layout.upright}
                />
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
            {!loose && <Dimensions layout={layout} size={[span(0), span(1), span(2)]} />}
          </>
        )}
        {!scene && (
          <p className="text-graphite p-6">
            The drawing appears as soon as the first step can be carried out.
          </p>
        )}
      </div>
      <div className="border-line desk:pointer-fine:hidden flex items-center gap-2 border-t p-1.5">
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
        {toggles && (
          <button type="button" className="action h-11!" onClick={toggle}>
            {zoom > 1 ? 'The whole piece' : 'For fingers'}
          </button>
        )}
      </div>
      <Tray build={build} step={step} />
      {glued && glue ? <GlueTools step={glue} planned={glued} /> : <StripTools build={build} step={step} />}
    </section>
  );
});

/** Length, width and thickness at their views, on the sides of the face that have room for them. */
function Dimensions({
  layout: { face, end, upright },
  size,
}: {
  layout: BenchLayout;
  size: readonly [number, number, number];
}) {
  const display = useDisplay();
  const along = upright
    ? { from: face.top, length: face.height, at: face.left - 28, vertical: true }
    : { from: face.left, length: face.width, at: face.top - 28 };
  const across = upright
    ? { from: face.left, length: face.width, at: face.top + face.height + 40 }
    : { from: face.top, length: face.height, at: face.left - 40, vertical: true };
  const thick = upright
    ? { from: end.top, length: end.height, at: face.left - 28, vertical: true }
    : { from: end.left, length: end.width, at: face.top - 28 };
  return [along, across, thick].map((line, axis) => (
    <DimensionLine key={DIMENSIONS[axis]} {...line} mm={size[axis]} display={display} />
  ));
}
