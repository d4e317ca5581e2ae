import { toLabPlanes } from '../colour/oklab.ts';
import { blurWide } from '../image/filter.ts';
import { resizePicture } from '../image/resize.ts';
import type { Picture } from '../image/types.ts';
import type { Region } from './echo.ts';

/** A line of what looks like letters: its place (0–1 of the frame) and how many of them it has. */
export interface Lettering extends Region {
  letters: number;
}

/**
 * How often what is found is lettering, and how much of it is found: measured by the engine's report (`bench/report/lettering.ts`) over
 * pictures that nothing here was tuned on, with and without a word across them, level and slanted, in three sizes and two weights.
 */
export const LETTERING_FOUND = { precision: 0.79, recall: 0.45 };

const SIDE = 720;
/** A mark is so much darker or lighter than what is around it, in OKLab lightness; around means within so many pixels. */
const CONTRAST = 0.1;
const AROUND = 16;
const LEAST_LETTERS = 4;
/** One more than any letter has: paint may leave a pinhole. */
const MOST_HOLES = 3;

interface Mark {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  width: number;
  height: number;
  area: number;
  /** Mean width of its strokes. */
  stroke: number;
  /** How long its strokes are altogether, in heights or widths of it: 1 for a plain bar, 2 and more for most letters. */
  winding: number;
  /** How many holes it has: no letter has more than two. */
  holes: number;
}

/**
 * Lines of letters in a picture, found by their build and not read: marks of like height and stroke, wound as letters are, side by side on
 * a straight line (after Epshtein, Ofek & Wexler 2010, with strokes measured from area and outline). Largest first.
 */
export function letteringIn(picture: Picture): Lettering[] {
  const k = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const [width, height] = [Math.max(16, Math.round(picture.width * k)), Math.max(16, Math.round(picture.height * k))];
  const { L } = toLabPlanes(k < 1 ? resizePicture(picture, width, height) : picture);
  const around = blurWide(L, width, height, AROUND);
  const out: Lettering[] = [];
  for (const sign of [1, -1]) {
    const inside = Uint8Array.from(L, (v, i) => (sign * (around[i] - v) > CONTRAST ? 1 : 0));
    out.push(...linesOf(marksOf(inside, width, height)).map(line => regionOf(line, width, height)));
  }
  return out.sort((p, q) => q.letters - p.letters);
}

function marksOf(inside: Uint8Array, width: number, height: number): Mark[] {
  const seen = new Uint8Array(inside.length);
  const marks: Mark[] = [];
  const queue: number[] = [];
  for (let start = 0; start < inside.length; start++) {
    if (!inside[start] || seen[start]) continue;
    let [x0, x1, y0, y1, area, rim, joints] = [width, 0, height, 0, 0, 0, 0];
    queue.length = 0;
    queue.push(start);
    seen[start] = 1;
    while (queue.length > 0) {
      const i = queue.pop()!;
      const [x, y] = [i % width, (i / width) | 0];
      area++;
      x0 = Math.min(x0, x);
      x1 = Math.max(x1, x);
      y0 = Math.min(y0, y);
      y1 = Math.max(y1, y);
      const at = (px: number, py: number): number => (px < width && py < height ? inside[py * width + px] : 0);
      const [right, below] = [at(x + 1, y), at(x, y + 1)];
      joints += right + below - (right && below && at(x + 1, y + 1) ? 1 : 0);
      for (const [dx, dy] of SIDES) {
        const [px, py] = [x + dx, y + dy];
        const open = px < 0 || py < 0 || px >= width || py >= height || !inside[py * width + px];
        if (open) rim++;
        else if (!seen[py * width + px]) {
          seen[py * width + px] = 1;
          queue.push(py * width + px);
        }
      }
    }
    // Euler's number of a piece, its pixels less the joints between them, is one less its holes.
    const mark = markOf(x0, y0, x1 + 1, y1 + 1, area, rim, 1 - (area - joints));
    const touches = x0 === 0 || y0 === 0 || x1 === width - 1 || y1 === height - 1;
    if (!touches && isLetterlike(mark)) marks.push(mark);
  }
  return marks;
}

const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
/** An outline counted in pixel sides is longer than it is by about this much. */
const STAIRS = 1.2;

function markOf(x0: number, y0: number, x1: number, y1: number, area: number, rim: number, holes: number): Mark {
  const [width, height] = [x1 - x0, y1 - y0];
  const stroke = (2 * area) / (rim / STAIRS);
  return { x0, y0, x1, y1, width, height, area, stroke, winding: area / stroke / Math.max(width, height), holes };
}

function isLetterlike({ width, height, area, stroke, holes }: Mark): boolean {
  const shape = width / height;
  const fill = area / (width * height);
  const slim = height / stroke;
  return (
    height >= 9 &&
    height <= 130 &&
    shape > 0.08 &&
    shape < 1.8 &&
    fill > 0.15 &&
    fill < 0.92 &&
    slim > 2.6 &&
    slim < 16 &&
    holes <= MOST_HOLES
  );
}

/** Marks joined into lines by what stands beside what. */
function linesOf(marks: readonly Mark[]): Mark[][] {
  const sorted = [...marks].sort((p, q) => p.x0 - q.x0);
  const next = sorted.map((p, i) => {
    let best = -1;
    for (let j = i + 1; j < sorted.length && sorted[j].x0 - p.x1 < p.height; j++)
      if (isBeside(p, sorted[j]) && (best < 0 || sorted[j].x0 < sorted[best].x0)) best = j;
    return best;
  });
  const taken = new Set<number>();
  const lines: Mark[][] = [];
  for (let i = 0; i < sorted.length; i++) {
    const line: Mark[] = [];
    for (let j = i; j >= 0 && !taken.has(j); j = next[j]) {
      taken.add(j);
      line.push(sorted[j]);
    }
    if (isLine(line)) lines.push(line);
  }
  return lines;
}

function isBeside(p: Mark, q: Mark): boolean {
  const tall = Math.max(p.height, q.height);
  const gap = q.x0 - p.x1;
  const size = p.height / q.height;
  const stroke = p.stroke / q.stroke;
  const level = Math.min(Math.abs(p.y1 - q.y1), Math.abs(p.y0 + p.height / 2 - q.y0 - q.height / 2));
  return (
    gap > -0.15 * tall && gap < 0.75 * tall && size > 0.55 && size < 1.8 && stroke > 0.6 && stroke < 1.65 && level < 0.22 * tall
  );
}

/** Whether marks side by side are letters: enough of them, wound, unlike one another, and on one straight line. */
function isLine(line: readonly Mark[]): boolean {
  if (line.length < LEAST_LETTERS) return false;
  const mean = (read: (m: Mark) => number): number => line.reduce((sum, m) => sum + read(m), 0) / line.length;
  const spread = (read: (m: Mark) => number): number => {
    const middle = mean(read);
    return Math.sqrt(mean(m => (read(m) - middle) ** 2));
  };
  const wound = line.filter(m => m.winding > 1.45).length / line.length;
  const height = mean(m => m.height);
  const unlike = spread(m => m.width / m.height) > 0.07 || spread(m => m.winding) > 0.12;
  const [x, y] = [mean(m => m.x0), mean(m => m.y1)];
  const slope =
    mean(m => (m.x0 - x) * (m.y1 - y)) /
    Math.max(
      1e-6,
      mean(m => (m.x0 - x) ** 2),
    );
  const bent = Math.sqrt(mean(m => (m.y1 - y - slope * (m.x0 - x)) ** 2));
  return wound >= 0.6 && mean(m => m.winding) > 1.6 && unlike && bent < 0.16 * height && Math.abs(slope) < 0.5;
}

function regionOf(line: readonly Mark[], width: number, height: number): Lettering {
  const x0 = Math.min(...line.map(m => m.x0));
  const y0 = Math.min(...line.map(m => m.y0));
  const x1 = Math.max(...line.map(m => m.x1));
  const y1 = Math.max(...line.map(m => m.y1));
  return { x: x0 / width, y: y0 / height, width: (x1 - x0) / width, height: (y1 - y0) / height, letters: line.length };
}
