/// <reference lib="webworker" />
import { drift, holdsUpTo, measure, paint } from '@zinc/core';
import { drawSubject, YARDSTICK, type Scene } from '@zinc/scenes';
import type { PaintAnswer, PaintOrder } from './painting';

const scenes = new Map<string, Scene>();

/** Scenes are drawn once a size and kept: only the painting changes while a person drags. */
function sceneOf(subject: number, size: number): Scene {
  const key = `${subject}/${size}`;
  let scene = scenes.get(key);
  if (!scene) {
    const { name, seed } = YARDSTICK[subject];
    scene = drawSubject(name, seed, size, size);
    scenes.set(key, scene);
  }
  return scene;
}

const BAND_SIZE = 128;

/** How far up the strength can go before the subject drowns, from one small painting at full strength. */
function bandOf({ subject, style, never }: PaintOrder): number {
  const { picture, mask, parts } = sceneOf(subject, BAND_SIZE);
  return holdsUpTo(picture, paint(picture, style, 1, YARDSTICK[subject].seed, { mask, parts, never }));
}

addEventListener('message', ({ data }: MessageEvent<PaintOrder>) => {
  const started = performance.now();
  const { picture, mask, parts } = sceneOf(data.subject, data.size);
  const painted = paint(picture, data.style, data.strength, YARDSTICK[data.subject].seed, { mask, parts, never: data.never });
  const off = data.measureAgainst ? drift(measure(painted), data.measureAgainst) : null;
  const holds = data.measureAgainst ? bandOf(data) : null;
  const pixels = painted.data as Uint8ClampedArray<ArrayBuffer>;
  const answer: PaintAnswer = {
    id: data.id,
    slot: data.slot,
    size: data.size,
    pixels,
    drift: off,
    holds,
    milliseconds: performance.now() - started,
  };
  postMessage(answer, { transfer: [pixels.buffer] });
});
