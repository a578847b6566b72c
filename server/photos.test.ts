import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readPhoto } from './photos';

/** A picture that is red on its left half and blue on its right. */
const halves = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#00f' } }).composite([
    {
      input: { create: { width: width / 2, height, channels: 3, background: '#f00' } },
      left: 0,
      top: 0,
    },
  ]);
const jpeg = (width = 120, height = 80) => halves(width, height).jpeg().toBuffer();
const why = (bytes: Buffer) =>
  readPhoto(bytes).then(
    () => 'taken',
    (error: Error) => error.message,
  );
const pixel = async (image: Buffer, left: number, top: number) => [
  ...(await sharp(image).extract({ left, top, width: 1, height: 1 }).raw().toBuffer()),
];
/** A PNG's signature and its head, saying a size that nothing follows. CRC of IHDR by the PNG specification, annex D. */
function pngOf(width: number, height: number): Buffer {
  const head = Buffer.alloc(17);
  head.write('IHDR', 'latin1');
  head.writeUInt32BE(width, 4);
  head.writeUInt32BE(height, 8);
  head.set([8, 2, 0, 0, 0], 12);
  let crc = 0xffffffff;
  for (const byte of head) {
    crc ^= byte;
    for (let i = 0; i < 8; i++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  const chunk = Buffer.alloc(25);
  chunk.writeUInt32BE(13);
  chunk.set(head, 4);
  chunk.writeUInt32BE((crc ^ 0xffffffff) >>> 0, 21);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    chunk,
    Buffer.from('0000000049444154' + '35af061e' + '0000000049454e44ae426082', 'hex'),
  ]);
}

describe('a photo that comes in', () => {
  it('is kept as WebP without place, camera or time, and small beside it', async () => {
    const bytes = await halves(3000, 1500)
      .withExif({
        IFD0: { Make: 'camera of the test', Model: 'M1', DateTime: '2026:03:01 09:30:00' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1', GPSLongitude: '0/1 7/1 0/1' },
      })
      .jpeg()
      .toBuffer();
    // The file that goes in does say all of it.
    expect(bytes.includes('camera of the test')).toBe(true);
    expect((await sharp(bytes).metadata()).exif).toBeDefined();
    const { image, small, widthPx, heightPx } = await readPhoto(bytes);
    expect([widthPx, heightPx]).toEqual([2000, 1000]);
    for (const [kept, width] of [
      [image, 2000],
      [small, 480],
    ] as const) {
      const meta = await sharp(kept).metadata();
      expect(meta).toMatchObject({ format: 'webp', width });
      expect([meta.exif, meta.xmp, meta.iptc, meta.icc]).toEqual([
        undefined,
        undefined,
        undefined,
        undefined,
      ]);
      expect(kept.includes('camera of the test')).toBe(false);
      expect(kept.includes('GPS')).toBe(false);
    }
  });
  it('is turned upright, as the camera says how it was held (Exif 2.32, tag 0x0112)', async () => {
    const bytes = await halves(120, 80).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const { image, widthPx, heightPx } = await readPhoto(bytes);
    expect([widthPx, heightPx]).toEqual([80, 120]);
    // Turned to the right by a quarter, the red half on the left comes to lie above.
    const [above, below] = [await pixel(image, 40, 20), await pixel(image, 40, 100)];
    expect(above[0]).toBeGreaterThan(200);
    expect(below[2]).toBeGreaterThan(200);
  });
  it('may be PNG or WebP, what is see-through becomes white, and a small one is not made larger', async () => {
    const clear = sharp({
      create: { width: 60, height: 40, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    });
    for (const bytes of [await clear.clone().png().toBuffer(), await clear.clone().webp().toBuffer()]) {
      const { image, widthPx, heightPx } = await readPhoto(bytes);
      expect([widthPx, heightPx]).toEqual([60, 40]);
      expect(Math.min(...(await pixel(image, 30, 20)).slice(0, 3))).toBeGreaterThan(250);
    }
  });
  it('is taken with what cameras put behind it: a second picture, a moving one', async () => {
    const photo = await jpeg();
    expect(await why(Buffer.concat([photo, photo]))).toBe('taken');
    expect(await why(Buffer.concat([photo, Buffer.alloc(9)]))).toBe('taken');
    expect(await why(Buffer.concat([photo, Buffer.from('\0\0\0\x18ftypmp42', 'latin1')]))).toBe('taken');
  });
});

describe('what is no photo', () => {
  it('is refused: nothing, text, a drawing, another kind of picture', async () => {
    expect(await why(Buffer.alloc(0))).toMatch(/empty: it holds 0 bytes/);
    for (const bytes of [
      Buffer.from('hello'),
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      await halves(20, 20).gif().toBuffer(),
      await halves(20, 20).tiff().toBuffer(),
      Buffer.from('%PDF-1.7\n'),
    ])
      expect(await why(bytes)).toMatch(/no JPEG, PNG or WebP/);
    expect(await why(Buffer.alloc(12 * 1024 * 1024 + 1))).toMatch(/the most is 12 MB/);
  });
  it('is refused: cut off at any place', async () => {
    for (const bytes of [
      await jpeg(),
      await halves(60, 40).png().toBuffer(),
      await halves(60, 40).webp().toBuffer(),
    ])
      for (const share of [0.3, 0.6, 0.95])
        expect(await why(bytes.subarray(0, Math.floor(bytes.length * share)))).toMatch(/cut off/);
  });
  it('is refused: two kinds in one, the second hidden behind the picture', async () => {
    const archive = Buffer.from('PK\x03\x04 something else entirely', 'latin1');
    const page = Buffer.from('<html><script>alert(1)</script></html>');
    for (const photo of [
      await jpeg(),
      await halves(60, 40).png().toBuffer(),
      await halves(60, 40).webp().toBuffer(),
    ])
      for (const hidden of [archive, page])
        expect(await why(Buffer.concat([photo, hidden]))).toMatch(/no picture follows the photo/);
    expect(await why(Buffer.concat([page, await jpeg()]))).toMatch(/no JPEG, PNG or WebP/);
  });
  it('is refused: 50,000 px along a side, whether there are pixels or only a head that says so', async () => {
    const wide = await sharp({ create: { width: 50_000, height: 40, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    expect(await why(wide)).toMatch(/50,000 × 40 px/);
    expect(await why(pngOf(50_000, 50_000))).toMatch(/50,000 × 50,000 px/);
    expect(await why(pngOf(16_000, 16_000))).toMatch(/65 million in all/);
    expect(await why(pngOf(4, 4000))).toMatch(/nothing to see/);
  });
  it('is refused: damaged in its middle, or moving', async () => {
    const png = await sharp({
      create: {
        width: 300,
        height: 300,
        channels: 3,
        noise: { type: 'gaussian', mean: 128, sigma: 60 },
      } as never,
    })
      .png()
      .toBuffer();
    png.fill(0, Math.floor(png.length / 2), Math.floor(png.length / 2) + 2000);
    expect(await why(png)).toMatch(/damaged|cut off/);
    const two = await sharp(
      [await halves(20, 20).png().toBuffer(), await halves(20, 20).negate().png().toBuffer()],
      { join: { animated: true } },
    )
      .webp()
      .toBuffer();
    expect(await why(two)).toMatch(/holds 2 pictures/);
  });
});
