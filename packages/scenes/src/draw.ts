import { randomFor } from '@zinc/core/number/random';
import { Canvas, type Scene } from './canvas/canvas.ts';
import { SUBJECTS } from './subjects/index.ts';

/** Draws a subject by its plain name into a frame. The same name, seed and size give the same pixels. Throws RangeError for other names. */
export function drawSubject(name: string, seed: number, width: number, height: number): Scene {
  const subject = SUBJECTS.find(s => s.name === name);
  if (!subject) throw new RangeError(`Got the subject "${name}"; wanted one of ${SUBJECTS.map(s => s.name).join(', ')}.`);
  const canvas = new Canvas(width, height);
  subject.draw(canvas, randomFor(seed, name), seed & 0xffff);
  return subject.unlit ? canvas.finish() : canvas.light();
}
