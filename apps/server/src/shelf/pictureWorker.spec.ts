import sharp, { type Sharp } from 'sharp';
import { takeIn, type IntakeResult } from './pictureWorker.ts';

const SIDE = 96;

/** Red left half, mid grey right half, as raw 8-bit RGB. */
function halves(): Buffer {
  const data = Buffer.alloc(SIDE * SIDE * 3);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) data.set(x < SIDE / 2 ? [200, 40, 60] : [128, 128, 128], (y * SIDE + x) * 3);
  return data;
}
const base = (): Sharp => sharp(halves(), { raw: { width: SIDE, height: SIDE, channels: 3 } });

async function taken(name: string, bytes: Buffer): Promise<Extract<IntakeResult, { ok: true }>> {
  const result = await takeIn({ kind: 'intake', name, bytes });
  if (!result.ok) throw new Error(result.reason);
  return result;
}

async function pixel(result: Extract<IntakeResult, { ok: true }>, x: number, y = SIDE / 2): Promise<number[]> {
  const { data, info } = await sharp(result.working).raw().toBuffer({ resolveWithObject: true });
  return [...data.subarray((y * info.width + x) * info.channels, (y * info.width + x) * info.channels + info.channels)];
}

function near(got: number[], wanted: number[], within: number): void {
  wanted.forEach((v, i) =>
    expect(Math.abs(got[i] - v))
      .withContext(`${got.join(' ')} for ${wanted.join(' ')}`)
      .toBeLessThanOrEqual(within),
  );
}

describe('content from anywhere comes to one working copy', () => {
  it('8-bit and 16-bit PNG alike', async () => {
    const deep = await base().toColourspace('rgb16').png().toBuffer();
    expect((await sharp(deep).metadata()).depth).toBe('ushort');
    const result = await taken('deep.png', deep);
    near(await pixel(result, 10), [200, 40, 60, 255], 2);
    near(await pixel(result, 80), [128, 128, 128, 255], 2);
  });
  it('greyscale, of 8 and of 16 bits', async () => {
    for (const space of ['b-w', 'grey16']) {
      const grey = await base().toColourspace(space).png().toBuffer();
      const got = await pixel(await taken('grey.png', grey), 80);
      near(got, [128, 128, 128, 255], 3);
    }
  });
  it('a CMYK JPEG through its profile', async () => {
    const cmyk = await base().withIccProfile('cmyk').toColourspace('cmyk').jpeg({ quality: 95 }).toBuffer();
    expect((await sharp(cmyk).metadata()).space).toBe('cmyk');
    const got = await pixel(await taken('plates.jpg', cmyk), 10);
    expect(got.length).toBe(4);
    // Red stays red; a press cannot print it quite so clear.
    expect(got[0]).toBeGreaterThan(150);
    expect(got[1]).toBeLessThan(90);
  });
  it('a wider colour space converted and not merely relabelled', async () => {
    const wide = await base().withIccProfile('p3').png().toBuffer();
    const inside = await sharp(wide, { ignoreIcc: true }).raw().toBuffer();
    const stored = [inside[30], inside[31], inside[32]];
    const got = await pixel(await taken('wide.png', wide), 10);
    near(got, [200, 40, 60], 4);
    expect(stored[0]).not.toBe(200);
  });
  it('a logo as flat SVG, its transparent ground kept', async () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><circle cx="50" cy="50" r="40" fill="#8e2a4b"/></svg>';
    const result = await taken('mark.svg', Buffer.from(svg));
    expect(result.width / result.height).toBe(2);
    const { data, info } = await sharp(result.working).raw().toBuffer({ resolveWithObject: true });
    expect(data[3]).toBe(0);
    const middle = (Math.floor(info.height / 2) * info.width + Math.floor(info.width / 4)) * 4;
    near([...data.subarray(middle, middle + 4)], [142, 42, 75, 255], 1);
  });
  it('shapes of 1 to 6 and 6 to 1, and the very small', async () => {
    for (const [w, h] of [
      [600, 100],
      [100, 600],
      [64, 64],
      [3, 2],
    ]) {
      const result = await taken('odd.png', await base().resize(w, h, { fit: 'fill' }).png().toBuffer());
      expect([result.width, result.height]).toEqual([w, h]);
      expect(Number.isFinite(result.fingerprint.line.edge)).toBeTrue();
    }
  });
});
