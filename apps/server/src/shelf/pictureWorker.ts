import {
  decodeWorkingCopy,
  drawMask,
  echoesOf,
  fingerprintOfCode,
  fitPicture,
  hashPixels,
  leakOf,
  letteringIn,
  likeness,
  measure,
  nearestCode,
  PictureError,
  prepare,
  PreparationError,
  RetouchError,
  type Echo,
  type Fingerprint,
  type Lab,
  type Leak,
  type Lettering,
  type Picture,
  type Preparation,
  type Stroke,
} from '@zinc/core';
import sharp, { type Metadata } from 'sharp';

sharp.concurrency(1);
sharp.cache(false);

export const MOST_PIXELS = 80_000_000;
const WORKING_SIDE = 2048;
const TYPES = ['jpeg', 'png', 'webp', 'avif', 'tiff', 'svg'];
const EXTENSIONS: Record<string, string> = {
  jpg: 'jpeg',
  jpeg: 'jpeg',
  png: 'png',
  webp: 'webp',
  avif: 'avif',
  tif: 'tiff',
  tiff: 'tiff',
  svg: 'svg',
};

export type IntakeTask = { kind: 'intake'; name: string; bytes: Uint8Array } | { kind: 'proof'; bytes: Uint8Array };
/** Style codes are painted and measured here too. */
export type CodeTask = { kind: 'code'; text: string } | { kind: 'nearestCode'; fingerprint: Fingerprint };
/** How much a painting keeps of its content; both are files. */
export interface LikenessTask {
  kind: 'likeness';
  painted: Uint8Array;
  original: Uint8Array;
}
/** A variant is made of a working copy. */
export interface VariantTask {
  kind: 'variant';
  bytes: Uint8Array;
  preparation: Preparation;
}
/** The region of a retouch, as a picture of its own. */
export interface MaskTask {
  kind: 'mask';
  width: number;
  height: number;
  strokes: Stroke[];
}
/** What a painting shows of a source: colours of `palette` among those that are not `wanted`, and shapes. */
export interface FindingsTask {
  kind: 'findings';
  painted: Uint8Array;
  source: Uint8Array;
  palette: Lab[];
  wanted: Lab[];
}
/** Lines of letters in a picture. */
export interface LetteringTask {
  kind: 'lettering';
  bytes: Uint8Array;
}
export interface Findings {
  leak: Leak | null;
  echoes: Echo[];
}
export type IntakeResult =
  | { ok: true; type: string; width: number; height: number; working: Uint8Array; fingerprint: Fingerprint; pixelHash: string }
  | { ok: false; reason: string; part?: keyof Preparation };

async function decode(bytes: Uint8Array, side: number | null): Promise<Picture> {
  let image = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'warning', density: 144 }).rotate().toColourspace('srgb');
  if (side) image = image.resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true });
  const { data, info } = await image.ensureAlpha().raw({ depth: 'uchar' }).toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.byteLength) };
}

/** Says what is wrong with a file that came as a picture, or null. */
async function refuse(
  name: string,
  bytes: Uint8Array,
): Promise<{ reason: string } | { type: string; width: number; height: number }> {
  let meta: Metadata;
  try {
    meta = await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    return { reason: 'It is not a picture that can be read here. JPEG, PNG, WebP, AVIF, TIFF and SVG can.' };
  }
  const type = meta.format === 'heif' ? 'avif' : (meta.format ?? '');
  if (!TYPES.includes(type))
    return { reason: `It is a ${type || 'file of unknown type'}; JPEG, PNG, WebP, AVIF, TIFF and SVG can be used.` };
  const claimed = EXTENSIONS[name.toLowerCase().split('.').pop() ?? ''];
  if (claimed && claimed !== type)
    return { reason: `Its name says ${claimed.toUpperCase()} but inside it is ${type.toUpperCase()}. Give it its right name.` };
  const { width = 0, height = 0 } = meta;
  if (width * height > MOST_PIXELS)
    return { reason: `It has ${width} × ${height} pixels; at most 80 million can be used. Save a smaller copy.` };
  return { type, width, height };
}

/** Runs in a worker thread. */
export default function run(
  task: IntakeTask | CodeTask | VariantTask | LikenessTask | MaskTask | FindingsTask | LetteringTask,
):
  | Promise<IntakeResult>
  | Fingerprint
  | ReturnType<typeof nearestCode>
  | Promise<number>
  | Promise<Findings>
  | Promise<Lettering[]> {
  if (task.kind === 'likeness') return compare(task);
  if (task.kind === 'variant') return makeVariant(task);
  if (task.kind === 'mask') return makeMask(task);
  if (task.kind === 'findings') return findIn(task);
  if (task.kind === 'lettering') return findLettering(task);
  if (task.kind === 'code') return fingerprintOfCode(task.text);
  if (task.kind === 'nearestCode') return nearestCode(task.fingerprint);
  return takeIn(task);
}

/** Likeness is a matter of form, not of pixels: it is read off copies of this size at most. */
const LIKENESS_SIDE = 512;

async function compare({ painted, original }: LikenessTask): Promise<number> {
  const after = await decode(painted, LIKENESS_SIDE);
  const before = await decode(original, null);
  return likeness(fitPicture(before, after.width, after.height), after);
}

const findLettering = async ({ bytes }: LetteringTask): Promise<Lettering[]> => letteringIn(await decode(bytes, null));

async function findIn({ painted, source, palette, wanted }: FindingsTask): Promise<Findings> {
  const after = await decode(painted, LIKENESS_SIDE);
  const before = await decode(source, LIKENESS_SIDE);
  return { leak: palette.length > 0 ? leakOf(after, palette, wanted) : null, echoes: echoesOf(after, before) };
}

async function encode({ width, height, data }: Picture): Promise<Uint8Array> {
  const png = sharp(data, { raw: { width, height, channels: 4 } }).png({ compressionLevel: 6 });
  return new Uint8Array(await png.toBuffer());
}

/** Makes and measures a variant of a working copy. What cannot be done comes back with its reason and the part at fault. */
export async function makeVariant({ bytes, preparation }: VariantTask): Promise<IntakeResult> {
  try {
    return await kept(prepare(decodeWorkingCopy(bytes), preparation));
  } catch (error) {
    if (error instanceof PreparationError) return { ok: false, reason: error.message, part: error.part };
    if (error instanceof PictureError) return { ok: false, reason: error.message };
    throw error;
  }
}

async function makeMask({ width, height, strokes }: MaskTask): Promise<IntakeResult> {
  try {
    return await kept(drawMask(width, height, strokes));
  } catch (error) {
    if (error instanceof RetouchError) return { ok: false, reason: error.message };
    throw error;
  }
}

async function kept(picture: Picture): Promise<IntakeResult> {
  const { width, height } = picture;
  const working = await encode(picture);
  return { ok: true, type: 'png', width, height, working, fingerprint: measure(picture), pixelHash: hashPixels(picture) };
}

/** Checks and decodes a picture, makes its working copy, measures it. Never throws for a bad file. */
export async function takeIn(task: IntakeTask): Promise<IntakeResult> {
  const checked = task.kind === 'intake' ? await refuse(task.name, task.bytes) : { type: 'png', width: 0, height: 0 };
  if ('reason' in checked) return { ok: false, reason: checked.reason };
  let picture: Picture;
  try {
    picture = await decode(task.bytes, task.kind === 'intake' ? WORKING_SIDE : null);
  } catch (error) {
    const cut = /premature|truncat|corrupt|end of|incomplete|invalid|read error/i.test((error as Error).message);
    return {
      ok: false,
      reason: cut ? 'It is cut short or damaged. Save or send it again.' : `It cannot be decoded: ${(error as Error).message}`,
    };
  }
  const { width, height } = picture;
  const working = task.kind === 'proof' ? task.bytes : await encode(picture);
  const size =
    task.kind === 'proof' || checked.type === 'svg' ? { width, height } : { width: checked.width, height: checked.height };
  return { ok: true, type: checked.type, ...size, working, fingerprint: measure(picture), pixelHash: hashPixels(picture) };
}
