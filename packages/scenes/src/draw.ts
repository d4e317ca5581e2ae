import { boxSeat, type Lab, type Seat } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import { clamp, lerp } from '@zinc/core/number/scalar';
import { Canvas, PIVOT, type Scene, type Stance } from './canvas/canvas.ts';
import { drawSetting, lampFor, type Light, type Season, type Setting } from './setting.ts';
import { SUBJECTS } from './subjects/index.ts';
import type { DrawnSubject, PartName } from './subjects/types.ts';

/** What may be asked of a drawing beside its subject; whatever is left out the subject decides for itself. */
export interface Wishes {
  /** Seed of the pose (which way it stands, how large, how it leans); the identity's own seed when left out. */
  pose?: number;
  count?: number;
  colour?: Lab;
  /** How far the colour goes, 0–1; all the way when left out. */
  colourAmount?: number;
  /** How far the pose may lie from the one that the identity has by itself, 0–1; all the way when left out. */
  scatter?: number;
  setting?: Setting;
  light?: Light;
  season?: Season;
  /** How many steps more (above 0) or fewer of its parts it has than by itself. */
  parts?: Partial<Record<PartName, number>>;
  /** Steps away from this pose and kind, each towards the ones of another seed, 0–1. */
  apart?: readonly { seed: number; pose: number; kind: number }[];
  /** Where in the frame it sits and how much of it it fills. */
  seat?: Seat;
}

export const MOST_COUNT = 9;
/** Shorter side of the drawing from which it is read how a thing would sit by itself. */
const TRIAL_SIDE = 96;
/** How much smaller or larger a seat may make a thing. */
const RESIZED = { least: 0.4, most: 1.7 };

/**
 * Draws a subject by its plain name into a frame. `seed` is its identity: the same seed is the same plant, bird or can, and another pose
 * shows it again. The same name, seed, wishes and size give the same pixels. Throws RangeError for other names and counts.
 */
export function drawSubject(name: string, seed: number, width: number, height: number, wishes: Wishes = {}): Scene {
  const subject = SUBJECTS.find(s => s.name === name);
  if (!subject) throw new RangeError(`Got the subject "${name}"; wanted one of ${SUBJECTS.map(s => s.name).join(', ')}.`);
  const { count, colour, setting, light, season } = wishes;
  if (count !== undefined && !(Number.isInteger(count) && count >= 1 && count <= MOST_COUNT))
    throw new RangeError(`Got a count of ${count}; wanted a whole number from 1 to ${MOST_COUNT}.`);
  const canvas = new Canvas(width, height);
  canvas.single = count !== undefined;
  canvas.wanted = wishes.parts ?? {};
  if (setting) canvas.setting = c => drawSetting(c, setting, seed & 0xffff);
  const moved = wishes.seat ? towardsSeat(name, seed, width, height, wishes, wishes.seat) : { dx: 0, dy: 0, scale: 1 };
  const pose = posesOf(name, seed, wishes);
  for (const [k, place] of places(count ?? 1).entries()) {
    canvas.stand(movedBy(stanceFor(subject, place, pose), moved));
    // Of several, each is its own; the first is the one that a single drawing shows.
    subject.draw(canvas, kindOf(name, seed, k, wishes), (seed + k * 31) & 0xffff);
  }
  if (colour) canvas.dye(colour, !subject.made, wishes.colourAmount ?? 1);
  if (season === 'autumn' || season === 'spring') canvas.turnGreens(season);
  return subject.unlit ? canvas.finish() : canvas.light(lampFor(light ?? 'daylight', season ?? null));
}

/** Numbers 0–1 that a pose is made of, drawn towards those of the identity's own pose as far as the scatter is less than whole. */
function posesOf(name: string, seed: number, { pose = seed, scatter = 1, apart = [] }: Wishes): () => number {
  const free = randomFor(pose, `${name} pose`);
  const own = randomFor(seed, `${name} pose`);
  const stands = scatter >= 1 ? free : () => lerp(own(), free(), scatter);
  return apart.reduce((from, step) => towards(from, randomFor(step.seed, `${name} pose`), step.pose), stands);
}

/** Numbers 0–1 that the k-th of a kind is made of, drawn towards those of others as far as it is to lie apart. */
function kindOf(name: string, seed: number, k: number, { apart = [] }: Wishes): () => number {
  const of = (s: number): (() => number) => randomFor(s + k * 7919, name);
  return apart.reduce((from, step) => towards(from, of(step.seed), step.kind), of(seed));
}

/** One stream of numbers drawn towards another; the first itself where it is not. */
function towards(from: () => number, to: () => number, amount: number): () => number {
  return amount > 0 ? () => lerp(from(), to(), amount) : from;
}

type Place = Pick<Stance, 'dx' | 'dy' | 'scale'>;

/** What brings a drawing as it would be by itself onto a seat. */
function towardsSeat(name: string, seed: number, width: number, height: number, wishes: Wishes, seat: Seat): Place {
  const unit = Math.min(width, height);
  const k = TRIAL_SIDE / unit;
  const [w, h] = [Math.round(width * k), Math.round(height * k)];
  const own = boxSeat(drawSubject(name, seed, w, h, { ...wishes, seat: undefined }).mask, w, h);
  if (!own) return { dx: 0, dy: 0, scale: 1 };
  const scale = clamp(seat.size / own.size, RESIZED.least, RESIZED.most);
  // In units of the frame's shorter side, from the pivot that things grow about.
  const at = (v: number, side: number, pivot: number): number => (v * side - (side - unit) / 2) / unit - pivot;
  return {
    dx: at(seat.x, width, PIVOT.x) - scale * at(own.x, width, PIVOT.x),
    dy: at(seat.y, height, PIVOT.y) - scale * at(own.y, height, PIVOT.y),
    scale,
  };
}

function movedBy(stance: Stance, by: Place): Stance {
  return { ...stance, dx: stance.dx * by.scale + by.dx, dy: stance.dy * by.scale + by.dy, scale: stance.scale * by.scale };
}

/** Where each of several stands: x, y off the middle, and size; those behind come first. */
function places(count: number): { dx: number; dy: number; scale: number }[] {
  if (count === 1) return [{ dx: 0, dy: 0, scale: 1 }];
  const rows = count <= 3 ? 1 : count <= 6 ? 2 : 3;
  const out: { dx: number; dy: number; scale: number }[] = [];
  let left = count;
  for (let r = 0; r < rows; r++) {
    const here = Math.ceil(left / (rows - r));
    left -= here;
    const scale = rows === 1 ? Math.min(0.66, 1.25 / here) : Math.min(0.62, 0.98 / here, 0.9 / rows) * 1.08;
    for (let k = 0; k < here; k++)
      out.push({
        dx: (k - (here - 1) / 2) * (0.92 / here), // A single row stands where one thing would stand.
        dy: rows === 1 ? 0.28 * (1 - scale) : (r - (rows - 1) / 2) * (0.86 / rows),
        scale,
      });
  }
  return out;
}

function stanceFor(subject: DrawnSubject, place: { dx: number; dy: number; scale: number }, pose: () => number): Stance {
  const [a, b, c, d, e] = [pose(), pose(), pose(), pose(), pose()];
  if (subject.unlit) return { ...place, turn: 0, flip: 1 };
  const lean = subject.leans ?? 0.05;
  return {
    dx: place.dx + (a - 0.5) * 0.03,
    dy: place.dy + (b - 0.5) * 0.02,
    scale: place.scale * (0.9 + 0.1 * c),
    turn: (d - 0.5) * 2 * lean,
    flip: e < 0.5 && !subject.oneWay ? -1 : 1,
  };
}
