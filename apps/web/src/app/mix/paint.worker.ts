/// <reference lib="webworker" />
import {
  drift,
  fitPicture,
  holdsUpTo,
  leakOf,
  measure,
  onSheet,
  paint,
  painting,
  type Lab,
  type Picture,
  type Seat,
} from '@zinc/core';
import { drawSubject, findSubject, findWishes, YARDSTICK, type Scene } from '@zinc/scenes';
import type { PaintAnswer, PaintOrder, PictureMessage } from './painting';

type Canvas = Pick<Scene, 'picture'> & Partial<Scene> & { seed: number };

const BAND_SIZE = 128;
/** Paintings kept to be had at other strengths; each holds a few planes of its size. */
const MOST_PAINTINGS = 14;
const MOST_CANVASES = 60;
const PICTURE_SEED = 1907;

const pictures = new Map<string, Picture>();
const canvases = new Map<string, Canvas>();
const paintings = new Map<string, (strength: number) => Picture>();
const bands = new Map<string, number>();
const colours = new Map<string, readonly Lab[]>();

/** What is kept under a key, or is made now; of more than `most` the oldest goes. */
function kept<T>(map: Map<string, T>, key: string, most: number, make: () => T): T {
  const known = map.get(key);
  const value = known ?? make();
  map.delete(key);
  map.set(key, value);
  if (map.size > most) map.delete(map.keys().next().value!);
  return value;
}

const nameOf = ({ content: c }: PaintOrder): string =>
  c.kind === 'yardstick'
    ? `y${c.subject}`
    : c.kind === 'subject'
      ? `s${c.wording}/${c.around ?? ''}/${c.identity}/${c.seed}`
      : `p${c.key}`;

/** Contents are drawn once a size and seat and kept: only the painting changes while a person drags. A picture of one's own stays as it sits. */
function canvasOf(order: PaintOrder, width: number, height = width, seat?: Seat): Canvas {
  const place = seat ? `/${seat.x}/${seat.y}/${seat.size}` : '';
  return kept(canvases, `${nameOf(order)}/${width}x${height}${place}`, MOST_CANVASES, () => {
    const c = order.content;
    if (c.kind === 'yardstick') {
      const { name, seed } = YARDSTICK[c.subject];
      return { ...drawSubject(name, seed, width, height, { seat }), seed };
    }
    if (c.kind === 'subject') {
      const { subject, wishes } = findSubject(c.wording);
      const asked = { ...findWishes(c.around ?? '').wishes, ...wishes, pose: c.seed, seat };
      return { ...drawSubject(subject!.name, c.identity, width, height, asked), seed: c.seed };
    }
    return { picture: fitPicture(pictures.get(c.key)!, width, height), seed: PICTURE_SEED };
  });
}

/** As the press would paint it. Without any strength there is no look, and no framing. */
function paintOrder(order: PaintOrder): Picture {
  const { size, style, strength, never, mixture } = order;
  const framing = strength > 0 ? style.framing : null;
  return onSheet(framing, size, size, never, (width, height) => {
    const { picture, mask, parts, seed } = canvasOf(order, width, height, framing?.seat ?? undefined);
    const at = kept(paintings, `${mixture}/${nameOf(order)}/${width}x${height}`, MOST_PAINTINGS, () =>
      painting(picture, style, seed, { mask, parts, never }),
    );
    return at(strength, order.rough);
  });
}

/** How far up the strength can go before the subject drowns, from one small painting at full strength. */
function bandOf(order: PaintOrder): number {
  return kept(bands, `${order.mixture}/${nameOf(order)}`, MOST_CANVASES, () => {
    const { picture, mask, parts, seed } = canvasOf(order, BAND_SIZE);
    return holdsUpTo(picture, paint(picture, order.style, 1, seed, { mask, parts, never: order.never }));
  });
}

/** Colours that may be seen: those of the look and the content's own. */
function wantedOf(order: PaintOrder): readonly Lab[] {
  const own = kept(colours, nameOf(order), MOST_CANVASES, () => measure(canvasOf(order, BAND_SIZE).picture).colour.palette);
  return [...order.style.palette, ...own];
}

addEventListener('message', ({ data }: MessageEvent<PaintOrder | PictureMessage>) => {
  if ('kind' in data) {
    pictures.set(data.key, { width: data.width, height: data.height, data: data.pixels });
    return;
  }
  const started = performance.now();
  const painted = paintOrder(data);
  const asked = data.measureAgainst !== null;
  const off = data.measureAgainst ? drift(measure(painted), data.measureAgainst) : null;
  const leaks = (data.withheld ?? []).map(w => ({ id: w.id, share: leakOf(painted, w.palette, wantedOf(data)).share }));
  const pixels = painted.data as Uint8ClampedArray<ArrayBuffer>;
  const answer: PaintAnswer = {
    id: data.id,
    slot: data.slot,
    size: data.size,
    pixels,
    drift: off,
    holds: asked ? bandOf(data) : null,
    leaks,
    milliseconds: performance.now() - started,
  };
  postMessage(answer, { transfer: [pixels.buffer] });
});
