import { Minus, Plus } from 'lucide-react';
import { type PointerEvent, useEffect, useId, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { BuildDocument } from '../../../core/document';
import {
  axesOf,
  type Camera,
  cameraAt,
  type Frame,
  layOut,
  type View,
  viewFrame,
} from '../../../core/picture';
import { run } from '../../../core/run';
import { OIL } from '../../../core/wood/colour';
import { askForPictures, paintRows } from '../../drawing/pictures';
import { useRoom } from '../../drawing/use-room';
import { Toggle } from '../../parts/Toggle';
import { OpenJob } from '../job/OpenJob';
import { FullScreen } from '../../parts/layout';

type Side = View | 'turning';
const SIDES: { value: Side; label: string }[] = [
  { value: 'face', label: 'Face' },
  { value: 'underside', label: 'Underside' },
  { value: 'edge', label: 'Edge' },
  { value: 'end', label: 'End' },
  { value: 'turning', label: 'Rotation' },
];
/** Closest look: 20 pixels to the millimetre, where pores stand open. */
const LEAST_PX_MM = 0.05;
const STEP = 1.6;
const title = (name: string) => `${name}, a look`;

/** The finished piece alone: any side, any distance, turned about by hand, with or without oil. */
export const LookScreen = () => (
  <OpenJob title={title}>{(id, build) => <Look id={id} build={build} />}</OpenJob>
);

function Look({ id, build }: { id: string; build: BuildDocument }) {
  const [side, setSide] = useState<Side>('turning');
  const [turn, setTurn] = useState({ yaw: 24, pitch: 38 });
  const [zoom, setZoom] = useState(1);
  const [at, setAt] = useState({ x: 0, y: 0 });
  const [oiled, setOiled] = useState<'bare' | 'oiled'>('bare');
  const { room, size } = useRoom();
  const canvas = useRef<HTMLCanvasElement>(null);
  const asker = useId();
  const scene = useMemo(() => {
    const timeline = run(build);
    const step = timeline.finished ?? timeline.steps.at(-1);
    return step && { step: step.id, scene: layOut(step.pieces) };
  }, [build]);
  const camera: Camera = useMemo(
    () => (side === 'turning' ? cameraAt(turn.yaw, turn.pitch) : axesOf(side)),
    [side, turn],
  );
  const window = useMemo(() => {
    if (!scene || size.width < 10) return undefined;
    const whole = viewFrame(scene.scene, camera);
    const fit = Math.max(
      (whole.right - whole.left) / (size.width * 0.92),
      (whole.top - whole.bottom) / (size.height * 0.92),
    );
    const pxMm = Math.max(LEAST_PX_MM, fit / zoom);
    const [x, y] = [(whole.left + whole.right) / 2 + at.x, (whole.bottom + whole.top) / 2 + at.y];
    const [w, h] = [(size.width * pxMm) / 2, (size.height * pxMm) / 2];
    const frame: Frame = { left: x - w, right: x + w, bottom: y - h, top: y + h };
    return { frame, pxMm, fit };
  }, [scene, camera, size, zoom, at]);
  useEffect(() => {
    if (!scene || !window) return;
    const wish = {
      view: 'turning' as const,
      camera,
      frame: window.frame,
      pxMm: window.pxMm,
      oiled: oiled === 'oiled',
    };
    return askForPictures(asker, { build, step: scene.step }, [wish], (rows) => {
      if (!canvas.current) return;
      // Nothing stands behind the piece: what an older look left there is wiped.
      if (rows.from === 0 && rows.scale === 2)
        canvas.current.getContext('2d')?.clearRect(0, 0, canvas.current.width, canvas.current.height);
      paintRows(canvas.current, rows);
      if (rows.last) canvas.current.dataset.done = String(rows.wish);
    });
  }, [asker, build, scene, camera, window, oiled]);
  const drag = useRef<{ x: number; y: number }>(undefined);
  const move = (event: PointerEvent) => {
    if (!drag.current || !window) return;
    const [dx, dy] = [event.clientX - drag.current.x, event.clientY - drag.current.y];
    drag.current = { x: event.clientX, y: event.clientY };
    if (side === 'turning' && !event.shiftKey)
      setTurn(({ yaw, pitch }) => ({
        yaw: (yaw - dx * 0.5 + 360) % 360,
        pitch: Math.max(-90, Math.min(90, pitch + dy * 0.5)),
      }));
    else setAt(({ x, y }) => ({ x: x - dx * window.pxMm, y: y + dy * window.pxMm }));
  };
  const closer = (by: number) =>
    setZoom((before) => Math.max(0.5, Math.min((window?.fit ?? 1) / LEAST_PX_MM, before * by)));
  return (
    <FullScreen>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <h1 className="text-[20px] font-semibold">{build.name}</h1>
        <Link className="action" to={`/jobs/${id}`}>
          To the job
        </Link>
        <span className="ml-auto" />
        <Toggle
          label="Side"
          hideLabel
          value={side}
          options={SIDES}
          onChange={(next) => {
            setSide(next);
            setAt({ x: 0, y: 0 });
          }}
        />
        <Toggle
          label="Finish"
          hideLabel
          value={oiled}
          options={[
            { value: 'bare', label: 'Bare' },
            { value: 'oiled', label: 'Oiled' },
          ]}
          onChange={setOiled}
        />
        <button
          type="button"
          className="action px-2"
          aria-label="Further away"
          onClick={() => closer(1 / STEP)}
        >
          <Minus size={16} />
        </button>
        <button type="button" className="action px-2" aria-label="Closer" onClick={() => closer(STEP)}>
          <Plus size={16} />
        </button>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: the keys turn and move the piece */}
      <div
        ref={room}
        className="sheet relative min-h-0 flex-1 touch-none overflow-hidden"
        role="application"
        aria-label="The piece; arrow keys turn or move it, plus and minus go closer and further away"
        tabIndex={0}
        data-testid="look"
        onPointerDown={(event) => {
          drag.current = { x: event.clientX, y: event.clientY };
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={move}
        onPointerUp={() => {
          drag.current = undefined;
        }}
        onPointerCancel={() => {
          drag.current = undefined;
        }}
        onWheel={(event) => closer(event.deltaY < 0 ? STEP ** 0.5 : STEP ** -0.5)}
        onKeyDown={(event) => {
          const keys: Record<string, [number, number]> = {
            ArrowLeft: [-1, 0],
            ArrowRight: [1, 0],
            ArrowUp: [0, 1],
            ArrowDown: [0, -1],
          };
          if (event.key === '+' || event.key === '=') closer(STEP);
          else if (event.key === '-') closer(1 / STEP);
          const way = keys[event.key];
          if (!way || !window) return;
          event.preventDefault();
          if (side === 'turning')
            setTurn(({ yaw, pitch }) => ({
              yaw: (yaw + way[0] * 10 + 360) % 360,
              pitch: Math.max(-90, Math.min(90, pitch + way[1] * 10)),
            }));
          else setAt(({ x, y }) => ({ x: x + way[0] * 40 * window.pxMm, y: y + way[1] * 40 * window.pxMm }));
        }}
      >
        <canvas ref={canvas} aria-hidden className="absolute inset-0 h-full w-full" />
        {!scene && <p className="p-6">Nothing can be drawn until the first step can be carried out.</p>}
      </div>
      <p className="text-graphite text-[13px]">
        {side === 'turning'
          ? 'Drag to turn it, with shift to move it; wheel to go closer.'
          : 'Drag to move it; wheel to go closer.'}{' '}
        {oiled === 'oiled' &&
          `Oiled is an illustration: every colour ${Math.round(100 - 100 * OIL.lightness)} % darker and ${Math.round(100 * OIL.chroma - 100)} % stronger, whatever the wood and the oil.`}
      </p>
    </FullScreen>
  );
}
