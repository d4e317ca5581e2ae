import { toLabPlanes } from '../colour/oklab.ts';
import { cropPicture } from '../image/fit.ts';
import { resizePicture } from '../image/resize.ts';
import { smallSubjectMask } from '../image/subjectMask.ts';
import type { Lab, LabPlanes, Picture } from '../image/types.ts';
import { slopesOf } from '../image/tensor.ts';
import { clamp } from '../number/scalar.ts';
import { windowOf, type Framing, type Seat, type Window } from './types.ts';

/** Margins are looked for on a copy this long. */
const SIDE = 256;
/** How far a colour of the margin may lie from its middle one, in OKLab: as far as its own grain goes, within these bounds. */
const NEAR = { least: 0.02, most: 0.055, grains: 2.5 };
/** Share of a row that must be bare for it to belong to a margin. */
const BARE = 0.97;
/** Least margin, and the most of a side that margins may take. */
const LEAST = 0.012;
const MOST = 0.3;
/** Share of an edge of the worked part that must stand off the margin; without it a thing only lies on a plain ground. */
const STANDS_OFF = 0.6;
/** Of a square's area a quarter circle leaves this much bare. */
const CORNER_AREA = 1 - Math.PI / 4;
const LEAST_CORNER = 0.02;
/** Outside the box of the one thing, taken that much wider, slopes are on the mean at most this share of those within. */
const UNREST = 0.25;
const ROOM = 0.03;

/**
 * How a picture sits on its sheet. A margin is one of a colour that runs along all of a side and ends in a straight line; a plain ground
 * around a thing has no such end, and is no margin.
 */
export function framingOf(picture: Picture): Framing {
  const frame = marginsOf(picture);
  return { ...frame, seat: seatOf(withoutMargins(picture, frame)) };
}

/** The worked part of a picture: the picture itself when it has no margins. */
export function withoutMargins(picture: Picture, framing: Pick<Framing, 'margins'>): Picture {
  if (framing.margins.every(m => m === 0)) return picture;
  const w = windowOf({ margins: framing.margins, corner: 0, sheet: null, seat: null }, picture.width, picture.height);
  return cropPicture(picture, w.left, w.top, w.width, w.height);
}

/** Margins, their colour and the corners of what they surround. */
export function marginsOf(picture: Picture): Omit<Framing, 'seat'> {
  const none: Omit<Framing, 'seat'> = { margins: [0, 0, 0, 0], corner: 0, sheet: null };
  const k = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const width = Math.round(picture.width * k);
  const height = Math.round(picture.height * k);
  if (Math.min(width, height) < 48) return none;
  const planes = toLabPlanes(k === 1 ? picture : resizePicture(picture, width, height));
  const rim = rimOf(planes);
  if (!rim) return none;
  const { sheet, near } = rim;
  const bare = new Uint8Array(width * height);
  for (let i = 0; i < bare.length; i++) bare[i] = Number(offBy(planes, i, sheet) < near);
  const window = innerWindow(bare, width, height);
  const short = Math.min(width, height);
  if (!window || !standsOff(bare, width, window)) return none;
  const { left, top } = window;
  const margins = [top, width - left - window.width, height - top - window.height, left].map(m => m / short);
  if (margins.every(m => m < LEAST) || margins.some(m => m > MOST)) return none;
  return {
    margins: margins.map(m => (m < LEAST ? 0 : m)) as Framing['margins'],
    corner: cornerOf(bare, width, window),
    sheet,
  };
}

function offBy({ L, a, b }: LabPlanes, i: number, c: Lab): number {
  return Math.sqrt((L[i] - c.L) * (L[i] - c.L) + (a[i] - c.a) * (a[i] - c.a) + (b[i] - c.b) * (b[i] - c.b));
}

/** The middle colour of the outermost pixels and how near to it a margin stays; null when they are not all about the same. */
function rimOf(planes: LabPlanes): { sheet: Lab; near: number } | null {
  const { width, height } = planes;
  const rim: number[] = [];
  for (let x = 0; x < width; x++) rim.push(width + x, (height - 2) * width + x);
  for (let y = 0; y < height; y++) rim.push(y * width + 1, y * width + width - 2);
  const middle = (values: Float32Array): number => rim.map(i => values[i]).sort((p, q) => p - q)[rim.length >> 1];
  const sheet = { L: middle(planes.L), a: middle(planes.a), b: middle(planes.b) };
  const off = rim.map(i => offBy(planes, i, sheet)).sort((p, q) => p - q);
  const near = clamp(NEAR.grains * off[Math.floor(0.9 * off.length)], NEAR.least, NEAR.most);
  return off[Math.floor(BARE * off.length)] < near ? { sheet, near } : null;
}

/** What is left when bare rows and columns are taken off on all four sides. */
function innerWindow(bare: Uint8Array, width: number, height: number): Window | null {
  const across = (x: number, y: number, dx: number, dy: number, count: number): number => {
    let sum = 0;
    for (let k = 0; k < count; k++) sum += bare[(y + dy * k) * width + x + dx * k];
    return sum / count;
  };
  let [top, bottom, left, right] = [0, height - 1, 0, width - 1];
  while (top < bottom && across(0, top, 1, 0, width) >= BARE) top++;
  while (bottom > top && across(0, bottom, 1, 0, width) >= BARE) bottom--;
  while (left < right && across(left, top, 0, 1, bottom - top + 1) >= BARE) left++;
  while (right > left && across(right, top, 0, 1, bottom - top + 1) >= BARE) right--;
  const window = { left, top, width: right - left + 1, height: bottom - top + 1 };
  return Math.min(window.width, window.height) < 24 ? null : window;
}

/** Whether the window's edges, its corners left out, are lined by what is not bare. */
function standsOff(bare: Uint8Array, width: number, w: Window): boolean {
  const lined = (x: number, y: number, dx: number, dy: number, count: number): boolean => {
    const skip = Math.round(count * 0.14);
    let worked = 0;
    for (let k = skip; k < count - skip; k++) {
      // Two pixels in, the smoothing of the edge itself is over.
      worked += 1 - bare[(y + dy * k) * width + x + dx * k];
    }
    return worked >= STANDS_OFF * (count - 2 * skip);
  };
  const { left, top } = w;
  const [right, bottom] = [left + w.width - 1, top + w.height - 1];
  return (
    lined(left, top + 2, 1, 0, w.width) &&
    lined(left, bottom - 2, 1, 0, w.width) &&
    lined(left + 2, top, 0, 1, w.height) &&
    lined(right - 2, top, 0, 1, w.height)
  );
}

/** Radius of the corners by the bare area that each leaves, as a share of the window's shorter side; 0 when they are square. */
function cornerOf(bare: Uint8Array, width: number, w: Window): number {
  const short = Math.min(w.width, w.height);
  const reach = Math.floor(short / 2);
  const radii = [0, 1, 2, 3].map(k => {
    const right = k % 2 === 1;
    const low = k >= 2;
    let area = 0;
    let last = reach;
    for (let y = 0; y < reach && last > 0; y++) {
      const row = (w.top + (low ? w.height - 1 - y : y)) * width + w.left;
      let run = 0;
      // A corner's bare runs only get shorter away from it.
      while (run < last && bare[row + (right ? w.width - 1 - run : run)]) run++;
      // The smoothing of the edge itself leaves a row, or a pixel in each row.
      if (y === 0 && run === reach) continue;
      if (run < 2) break;
      area += run;
      last = run;
    }
    return Math.sqrt(area / CORNER_AREA);
  });
  const radius = radii.sort((p, q) => p - q)[1] / short;
  return radius < LEAST_CORNER ? 0 : Math.min(0.5, radius);
}

/** Where the one thing of a picture is; null when none stands out on a calm ground, as in a pattern. */
export function seatOf(picture: Picture): Seat | null {
  const mask = smallSubjectMask(picture);
  const seat = mask && boxSeat(mask.data, mask.width, mask.height);
  if (!seat) return null;
  const { width, height } = mask;
  const small = picture.width === width && picture.height === height ? picture : resizePicture(picture, width, height);
  const slopes = slopesOf(toLabPlanes(small).L, width, height).size;
  const [left, right] = [seat.x - seat.width / 2 - ROOM, seat.x + seat.width / 2 + ROOM];
  const [top, bottom] = [seat.y - seat.height / 2 - ROOM, seat.y + seat.height / 2 + ROOM];
  const sum = [0, 0];
  const count = [0, 0];
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const [u, v] = [(x + 0.5) / width, (y + 0.5) / height];
      const outside = Number(u < left || u > right || v < top || v > bottom);
      sum[outside] += slopes[i];
      count[outside]++;
    }
  // What fills the frame has no ground around it to sit on.
  return count[1] > 0.08 * slopes.length && sum[1] / count[1] < (UNREST * sum[0]) / count[0]
    ? { x: seat.x, y: seat.y, size: seat.size }
    : null;
}

/** The seat and box of what a mask covers, its outermost hundredths left out; null when it covers next to nothing. */
export function boxSeat(mask: Float32Array, width: number, height: number): (Seat & { width: number; height: number }) | null {
  const columns = new Float64Array(width);
  const rows = new Float64Array(height);
  let all = 0;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (mask[i] < 0.5) continue;
      columns[x]++;
      rows[y]++;
      all++;
    }
  if (all < 0.005 * mask.length) return null;
  const [x0, x1] = extent(columns, all);
  const [y0, y1] = extent(rows, all);
  const [w, h] = [(x1 - x0) / width, (y1 - y0) / height];
  return { x: (x0 + x1) / 2 / width, y: (y0 + y1) / 2 / height, width: w, height: h, size: Math.max(w, h) };
}

/** From where to where the middle 99 hundredths of a histogram reach. */
function extent(counts: Float64Array, all: number): [number, number] {
  const cut = 0.005 * all;
  let from = 0;
  let to = counts.length;
  for (let sum = counts[0]; sum < cut; sum += counts[++from]);
  for (let sum = counts[to - 1]; sum < cut; sum += counts[--to - 1]);
  return [from, to];
}
