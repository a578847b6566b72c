import { Camera } from 'lucide-react';
import { useRef, useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import { FileButton } from '../../parts/FileButton';
import { Window } from '../../parts/Window';

/** Pixels each way around the point tapped that are averaged, so that a pore or a reflection does not decide. */
const AROUND = 12;
const MOST_PX = 900;

const hex = (v: number) => Math.round(v).toString(16).padStart(2, '0');

/** The mean colour around a point of a picture, averaged in linear light. */
function meanColour(context: CanvasRenderingContext2D, x: number, y: number): string {
  const { data } = context.getImageData(
    Math.max(0, x - AROUND),
    Math.max(0, y - AROUND),
    2 * AROUND,
    2 * AROUND,
  );
  const linear = (v: number) => (v / 255) ** 2.2;
  const sums = [0, 0, 0];
  for (let i = 0; i < data.length; i += 4) for (let k = 0; k < 3; k++) sums[k] += linear(data[i + k]);
  const mean = sums.map((sum) => 255 * (sum / (data.length / 4)) ** (1 / 2.2));
  return `#${mean.map(hex).join('')}`;
}

/** The colour of a board's planed face: by swatch, or tapped on a photo that never leaves this browser. */
export function BoardColour({
  board,
  onChange,
}: {
  board: RackBoard;
  onChange: (colour: string | undefined) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [photo, setPhoto] = useState<ImageBitmap>();
  const [reason, setReason] = useState<string>();
  const open = async (picture: File) => {
    try {
      setReason(undefined);
      setPhoto(await createImageBitmap(picture));
    } catch {
      setReason('This file is not a picture that the browser can read.');
    }
  };
  return (
    <div className="col-span-2">
      <span className="label block pb-0.5">Colour of the planed face</span>
      <span className="flex items-center gap-2">
        <input
          type="color"
          aria-label="Colour swatch"
          className="border-line h-8 w-14 rounded border bg-white"
          value={board.colour ?? '#c8a97e'}
          onChange={(event) => onChange(event.target.value)}
        />
        <span className="rule text-[14px]">
          {board.colour ?? <span className="text-graphite font-sans">not looked at</span>}
        </span>
        <FileButton label="Photo of the board" accept="image/*" onFile={(picture) => void open(picture)}>
          <Camera size={15} aria-hidden /> From a photo
        </FileButton>
        {board.colour && (
          <button type="button" className="action" onClick={() => onChange(undefined)}>
            Forget
          </button>
        )}
      </span>
      {reason && (
        <p role="alert" className="text-red text-[13px]">
          {reason}
        </p>
      )}
      <Window
        wide
        title="Tap the wood"
        description="Tap a clean, evenly lit place of the planed face. The photo stays in this browser."
        open={photo !== undefined}
        onClose={() => setPhoto(undefined)}
      >
        {photo && (
          <canvas
            ref={(element) => {
              canvas.current = element;
              if (!element) return;
              const k = Math.min(1, MOST_PX / photo.width);
              element.width = Math.round(photo.width * k);
              element.height = Math.round(photo.height * k);
              element.getContext('2d')?.drawImage(photo, 0, 0, element.width, element.height);
            }}
            className="max-w-full cursor-crosshair"
            data-testid="photo"
            onClick={(event) => {
              const context = canvas.current?.getContext('2d');
              if (!canvas.current || !context) return;
              const box = canvas.current.getBoundingClientRect();
              const k = canvas.current.width / box.width;
              onChange(
                meanColour(
                  context,
                  Math.round((event.clientX - box.left) * k),
                  Math.round((event.clientY - box.top) * k),
                ),
              );
              setPhoto(undefined);
            }}
          />
        )}
      </Window>
    </div>
  );
}
