import sharp, { type Metadata } from 'sharp';
import { KEPT_PX, MOST_PHOTO_BYTES, megabytes } from '../core/notes';
import { problem, type ProblemError } from './problems';

/*
 * What comes in as a photo. Nothing of the file is kept: it is decoded, turned upright, made smaller and written anew, so that
 * neither the place nor the camera, nor anything that was hidden in the file, gets further than this.
 */

/**
 * The most pixels of a photo, and the most along one side: 64-megapixel cameras and wide panoramas of phones pass. A progressive
 * JPEG of so many takes up to 400 MB while it is read.
 */
const MOST_PIXELS = 65_000_000;
const MOST_SIDE = 17_000;
const LEAST_SIDE = 8;
/** The longer side of the small one that lists show, px. */
const SMALL_PX = 480;
const QUALITY = { kept: 82, small: 72 };
/** Photos are read one after the other: a flood of them waits, and takes the memory of one. */
let reading: Promise<unknown> = Promise.resolve();

// Only what is taken here is ever decoded, whatever else this build of the library could read.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['VipsForeignLoadJpegBuffer', 'VipsForeignLoadPngBuffer', 'VipsForeignLoadWebpBuffer'],
});
sharp.cache(false);

/** A photo as it is kept, and small, both WebP. */
export interface KeptPhoto {
  image: Buffer;
  small: Buffer;
  widthPx: number;
  heightPx: number;
}

const refused = (detail: string): ProblemError => problem(422, 'Not a photo', detail);

const isJpeg = (bytes: Buffer) => bytes.length > 3 && bytes.readUIntBE(0, 3) === 0xffd8ff;
const PNG_HEAD = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
const isPng = (bytes: Buffer) => bytes.subarray(0, 8).equals(PNG_HEAD);
const isWebp = (bytes: Buffer) =>
  bytes.toString('latin1', 0, 4) === 'RIFF' && bytes.toString('latin1', 8, 12) === 'WEBP';

/** Where the picture in a JPEG ends: its segments by their lengths, then its scans up to the end of image. ISO/IEC 10918-1, annex B. */
function endOfJpeg(bytes: Buffer): number | undefined {
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return undefined;
    const marker = bytes[at + 1];
    if (marker === 0xd9) return at + 2;
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    at += 2 + bytes.readUInt16BE(at + 2);
    if (marker !== 0xda) continue;
    // Within a scan a marker is FF followed by neither 00 nor a restart.
    while (at + 1 < bytes.length) {
      const next = bytes[at + 1];
      if (bytes[at] === 0xff && next !== 0 && next !== 0xff && (next < 0xd0 || next > 0xd7)) break;
      at += 1;
    }
    if (at + 1 < bytes.length && bytes[at + 1] === 0xd9) return at + 2;
  }
  return undefined;
}

/** Where the picture in a PNG ends: after the chunk IEND. PNG specification, section 5. */
function endOfPng(bytes: Buffer): number | undefined {
  for (let at = 8; at + 12 <= bytes.length; at += 12 + bytes.readUInt32BE(at))
    if (bytes.toString('latin1', at + 4, at + 8) === 'IEND') return at + 12;
  return undefined;
}

/** A RIFF file says its own length (RFC 9649). */
const endOfWebp = (bytes: Buffer) => 8 + bytes.readUInt32LE(4) + (bytes.readUInt32LE(4) % 2);

/** Whether what follows a picture is what cameras put there: another JPEG, a moving picture, or their own trailer after it. */
function isOfCamera(tail: Buffer): boolean {
  const start = tail.findIndex((byte) => byte !== 0);
  if (start < 0) return true;
  const rest = tail.subarray(start);
  return (
    isJpeg(rest) ||
    tail.toString('latin1', 4, 8) === 'ftyp' ||
    tail.subarray(-4).toString('latin1') === 'SEFT'
  );
}

/** Why bytes are no photo, by their own first and last ones; undefined where they may be one. */
function notByBytes(bytes: Buffer): string | undefined {
  const end = isJpeg(bytes)
    ? endOfJpeg(bytes)
    : isPng(bytes)
      ? endOfPng(bytes)
      : isWebp(bytes)
        ? endOfWebp(bytes)
        : -1;
  if (end === -1) return 'This file is no JPEG, PNG or WebP, whatever it is called.';
  if (end === undefined || end > bytes.length)
    return 'This photo is cut off: the end of it is missing. Send it again, or take it again.';
  if (!isOfCamera(bytes.subarray(end)))
    return `Something that is no picture follows the photo in this file: ${bytes.length - end} bytes. It was not taken.`;
  return undefined;
}

function notBySize({ width = 0, height = 0, pages = 1 }: Metadata): string | undefined {
  const size = `${width.toLocaleString('en')} × ${height.toLocaleString('en')} px`;
  if (width > MOST_SIDE || height > MOST_SIDE || width * height > MOST_PIXELS)
    return `This photo is ${size}: the most is ${MOST_SIDE.toLocaleString('en')} px along a side, and ${MOST_PIXELS / 1e6} million in all. Take it with a smaller size in the camera’s settings.`;
  if (width < LEAST_SIDE || height < LEAST_SIDE)
    return `This photo is ${size}: there is nothing to see on it.`;
  if (pages > 1) return `This moves: it holds ${pages} pictures. A photo is one.`;
  return undefined;
}

async function read(bytes: Buffer): Promise<KeptPhoto> {
  // Metadata reads the head alone: a bomb is told before a pixel of it is unpacked.
  const meta = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => undefined);
  if (!meta) throw refused('This photo cannot be read: it is damaged.');
  const wrong = notBySize(meta);
  if (wrong) throw refused(wrong);
  try {
    const upright = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'warning', sequentialRead: true })
      .autoOrient()
      .resize(KEPT_PX, KEPT_PX, { fit: 'inside', withoutEnlargement: true })
      // A photo of wood lies on no background: what is see-through in a PNG becomes white.
      .flatten({ background: '#fff' })
      .toColourspace('srgb');
    const { data: image, info } = await upright
      .webp({ quality: QUALITY.kept })
      .toBuffer({ resolveWithObject: true });
    const small = await sharp(image)
      .resize(SMALL_PX, SMALL_PX, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: QUALITY.small })
      .toBuffer();
    return { image, small, widthPx: info.width, heightPx: info.height };
  } catch {
    throw refused('This photo cannot be read to its end: it is damaged.');
  }
}

/**
 * A photo out of the bytes that came in: JPEG, PNG or WebP of at most 12 MB, turned upright, at most 2,000 px along a side,
 * without place, camera or anything else that was in the file. Refused, with the reason, where it is empty, cut off, of
 * another kind, with something behind it that no camera puts there, moving, or of more than 65 million pixels.
 */
export async function readPhoto(bytes: Buffer): Promise<KeptPhoto> {
  if (bytes.length === 0) throw refused('This file is empty: it holds 0 bytes.');
  if (bytes.length > MOST_PHOTO_BYTES)
    throw refused(`This photo has ${megabytes(bytes.length)}; the most is ${megabytes(MOST_PHOTO_BYTES)}.`);
  const wrong = notByBytes(bytes);
  if (wrong) throw refused(wrong);
  const next = reading.then(() => read(bytes));
  reading = next.catch(() => undefined);
  return next;
}
