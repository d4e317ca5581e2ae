import { drift } from '../drift/drift.ts';
import { halve } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { measurePlanes } from '../measure/measure.ts';
import type { Fingerprint } from '../measure/types.ts';
import { mixPlanes } from './planes.ts';

/** Places between content and painting at which pictures are measured first. */
const PLACES = [0, 0.12, 0.3, 0.52, 0.76, 1];
/** Long side of the copies that are measured, and of those of looks with hatching or dots, which smaller ones would lose; half of it for previews. */
const LONG_SIDE = 256;
const FINE_SIDE = 512;
/** Steps of strength that are made alike; between them the way is straight. */
const STEPS = 5;
const ROUNDS = 24;

function reduced(planes: LabPlanes, side: number): LabPlanes {
  let now = planes;
  while (Math.max(now.width, now.height) > side && Math.min(now.width, now.height) > 1) {
    const { width, height } = now;
    const L = halve({ width, height, data: now.L });
    now = {
      width: L.width,
      height: L.height,
      L: L.data,
      a: halve({ width, height, data: now.a }).data,
      b: halve({ width, height, data: now.b }).data,
    };
  }
  return now;
}

/** A table of drifts between pictures at `places`, read between its entries in straight lines. */
function reader(places: readonly number[], table: number[][]): (p: number, q: number) => number {
  const find = (v: number): [number, number] => {
    let k = 0;
    while (k < places.length - 2 && places[k + 1] < v) k++;
    return [k, Math.min(1, (v - places[k]) / Math.max(1e-9, places[k + 1] - places[k]))];
  };
  return (p, q) => {
    const [i, u] = find(p);
    const [j, v] = find(q);
    const low = table[i][j] + (table[i + 1][j] - table[i][j]) * u;
    const high = table[i][j + 1] + (table[i + 1][j + 1] - table[i][j + 1]) * u;
    return low + (high - low) * v;
  };
}

/**
 * Where to stop on the way from 0 to 1 so that `steps` steps lie equally far apart: `steps` + 1 rising numbers from 0 to 1. `table` holds
 * the drift between the pictures at each pair of `places`. Drift is no length (small differences count by their square), so a step is
 * what lies between its two ends, not a sum over smaller ones; its size is found by halving.
 */
export function equalSteps(places: readonly number[], table: number[][], steps = STEPS): number[] {
  const between = reader(places, table);
  const nextAfter = (from: number, size: number): number => {
    if (between(from, 1) < size) return 2;
    let [low, high] = [from, 1];
    for (let k = 0; k < ROUNDS; k++) {
      const middle = (low + high) / 2;
      if (between(from, middle) < size) low = middle;
      else high = middle;
    }
    return high;
  };
  const walk = (size: number): number[] => {
    const stops = [0];
    while (stops.length <= steps) stops.push(nextAfter(Math.min(1, stops[stops.length - 1]), size));
    return stops;
  };
  let low = 0;
  let high = Math.max(...table.flat());
  for (let k = 0; k < ROUNDS; k++) {
    const middle = (low + high) / 2;
    // A walk that stops short of the end had steps that are too small.
    if (walk(middle)[steps] < 1) low = middle;
    else high = middle;
  }
  const stops = walk(low);
  stops[steps] = 1;
  return stops;
}

/**
 * Where to stop between content and painting (0–1) so that equal steps of strength are equal steps of measured drift; null when the two look
 * the same. `fine` is for looks whose marks are as small as a few pixels.
 */
export function strengthStops(own: LabPlanes, painted: LabPlanes, fine = true): number[] | null {
  const side = (fine ? FINE_SIDE : LONG_SIDE) / (Math.max(own.width, own.height) <= LONG_SIDE ? 2 : 1);
  const from = reduced(own, side);
  const to = reduced(painted, side);
  const places: number[] = [];
  const seen: Fingerprint[] = [];
  const table: number[][] = [];
  const look = (t: number): void => {
    const f = measurePlanes(mixPlanes(from, to, t));
    const at = places.filter(p => p < t).length;
    const far = seen.map(g => drift(f, g).total);
    table.forEach((row, k) => row.splice(at, 0, far[k]));
    table.splice(at, 0, [...far.slice(0, at), 0, ...far.slice(at)]);
    places.splice(at, 0, t);
    seen.splice(at, 0, f);
  };
  PLACES.forEach(look);
  if (table[0][PLACES.length - 1] < 1e-6) return null;
  // Some measures change at a stroke, where hatching begins to show; looking again at the stops themselves finds such places.
  equalSteps(places, table).slice(1, STEPS).forEach(look);
  return equalSteps(places, table);
}

/** How far to go from content to painting (0–1) for a strength, by the stops found for the two. */
export function placeAt(stops: number[] | null, strength: number): number {
  if (!stops) return strength;
  const k = Math.min(STEPS - 1, Math.floor(strength * STEPS));
  return stops[k] + (stops[k + 1] - stops[k]) * (strength * STEPS - k);
}
