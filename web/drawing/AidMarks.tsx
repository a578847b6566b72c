import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import type { AidLayout, GlueUp } from '../../core/glueup';
import { type Display, lengthText } from '../../core/units';
import type { GlueFrame } from './glue-frame';
import { gripWidth } from './grip';

/** Alignment aids on their joints; one that a later cut would open is ringed in red pencil. Each can be dragged along. */
export function AidMarks({
  glueUp,
  aids,
  frame,
  chosen,
  display,
  onChoose,
  onDrop,
  onKey,
}: {
  glueUp: GlueUp;
  aids: AidLayout;
  frame: GlueFrame;
  chosen: string | undefined;
  display: Display;
  onChoose: (index: string) => void;
  onDrop: (index: number, at: number) => void;
  onKey: (index: number, event: KeyboardEvent) => void;
}) {
  const group = useRef<SVGGElement>(null);
  const [held, setHeld] = useState<{ i: number; at: number }>();
  const place = (event: PointerEvent): number => {
    const box = group.current?.ownerSVGElement?.getBoundingClientRect();
    const at = frame.runAt(event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0));
    return Math.min(glueUp.lengthMm, Math.max(0, at));
  };
  const across = glueUp.lines.map(({ at }) => at / frame.mmPerPx);
  const along = glueUp.lines.map(({ joint }) =>
    gripWidth(aids.aids.filter((aid) => aid.joint === joint).map(({ at }) => at / frame.mmPerPx)),
  );
  const reach = Math.min(gripWidth(across), ...along) / 2;
  return (
    <g ref={group}>
      {aids.aids.map((aid, i) => {
        const line = glueUp.lines.find(({ joint }) => joint === aid.joint);
        if (!line || !aids.size) return null;
        const at = held?.i === i ? held.at : aid.at;
        const [a, b] = [
          frame.point(at - aid.along / 2, line.at - aids.size.into),
          frame.point(at + aid.along / 2, line.at + aids.size.into),
        ];
        const [w, h] = [Math.max(5, Math.abs(b.x - a.x)), Math.max(5, Math.abs(b.y - a.y))];
        const [cx, cy] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
        const id = String(i);
        return (
          <g
            key={`${aid.joint}.${i}`}
            role="button"
            tabIndex={0}
            data-aid={i}
            data-grip
            data-bad={aid.bad?.kind}
            aria-label={`Aid on joint ${aid.joint}, ${lengthText(at, display)} from the end${aid.bad ? ', exposed' : ''}`}
            className="cursor-grab outline-none focus-visible:[&_rect]:stroke-[3px]"
            onKeyDown={(event) => onKey(i, event)}
            onPointerDown={(event) => {
              onChoose(id);
              event.currentTarget.setPointerCapture(event.pointerId);
              setHeld({ i, at: aid.at });
            }}
            onPointerMove={(event) => held?.i === i && setHeld({ i, at: place(event) })}
            onPointerUp={(event) => {
              if (held?.i !== i) return;
              const next = place(event);
              setHeld(undefined);
              if (Math.abs(next - aid.at) > frame.mmPerPx) onDrop(i, next);
            }}
            onPointerCancel={() => setHeld(undefined)}
          >
            <circle className="hidden pointer-coarse:inline" cx={cx} cy={cy} r={reach} fill="transparent" />
            <rect
              x={cx - w / 2}
              y={cy - h / 2}
              width={w}
              height={h}
              rx={Math.min(w, h) / 2}
              fill={chosen === id ? '#1d4f9c' : '#fafaf7'}
              fillOpacity={chosen === id ? 0.55 : 0.8}
              stroke={chosen === id ? '#1d4f9c' : '#22272a'}
              strokeWidth="1.3"
            />
            {aid.bad && (
              <ellipse
                cx={cx}
                cy={cy}
                rx={w / 2 + 7}
                ry={h / 2 + 7}
                fill="none"
                stroke="#b0261c"
                strokeWidth="1.8"
                transform={`rotate(-4 ${cx} ${cy})`}
              />
            )}
          </g>
        );
      })}
    </g>
  );
}
