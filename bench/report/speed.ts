import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { FACETS, measure, mix, paint, type Style } from '@zinc/core';
import { drawSubject, YARDSTICK } from '@zinc/scenes';
import sharp from 'sharp';
import type { Figure } from './figures.ts';
import { type Reference } from './references.ts';

const ROUNDS = 9;
const FLAT = ['cut paper', 'spot print'];
const median = (values: number[]): number => values.sort((p, q) => p - q)[values.length >> 1];
const styleOf = (r: Reference): Style => mix([{ parts: 1, facets: [...FACETS], fingerprint: r.fingerprint }]).style;

/** Median times in milliseconds of several jobs, taken turn by turn, so that a busy machine slows all of them alike. */
async function timesOf(jobs: (() => unknown)[]): Promise<number[]> {
  const times: number[][] = jobs.map(() => []);
  for (let round = 0; round <= ROUNDS; round++)
    for (const [j, job] of jobs.entries()) {
      const started = performance.now();
      await job();
      // The first round only warms up.
      if (round > 0) times[j].push(performance.now() - started);
    }
  return times.map(median);
}

const figure = (name: string, study: string, aim: string, value: string, met: boolean): Figure => ({
  name,
  study,
  aim,
  value,
  met,
});

/** Speed as ratios to a decode and resize in the same run, previews, and the memory of one large painting. */
export async function speed(references: Reference[]): Promise<Figure[]> {
  sharp.concurrency(1);
  sharp.cache(false);
  const jpeg = await sharp(await pixelsOfScene(1024))
    .jpeg({ quality: 92 })
    .toBuffer();
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const large = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
  const scene = drawSubject('artichoke', 7, 1024, 1024);
  const small = YARDSTICK.map(y => drawSubject(y.name, y.seed, 256, 256));
  const [baseline, measuring, ...painting] = await timesOf([
    () => sharp(jpeg).resize(512, 512).raw().toBuffer(),
    () => measure(large),
    ...references.map(r => () => paint(scene.picture, styleOf(r), 1, 7, { mask: scene.mask, parts: scene.parts })),
    ...references.map(r => () => small.forEach(s => paint(s.picture, styleOf(r), 1, 7, { mask: s.mask, parts: s.parts }))),
  ]);
  const each = (from: number): { flat: number; heaviest: number; text: string } => {
    const times = references.map((r, k) => ({ name: r.family, flat: FLAT.includes(r.family), time: painting[from + k] }));
    return {
      flat: Math.max(...times.filter(t => t.flat).map(t => t.time)),
      heaviest: Math.max(...times.map(t => t.time)),
      text: times.map(t => `${t.name} ${t.time.toFixed(0)}`).join(', '),
    };
  };
  const full = each(0);
  const preview = each(references.length);
  const ratio = (t: number): string => (t / baseline).toFixed(1);
  const peak = peakMemory();
  return [
    figure(
      `measure 1024² ÷ (decode + resize to 512², ${baseline.toFixed(1)} ms)`,
      '≈ 18',
      '≤ 4',
      `${ratio(measuring)} (${measuring.toFixed(0)} ms)`,
      measuring / baseline <= 4,
    ),
    figure(
      'paint 1024² ÷ the same, heaviest look / flat looks',
      '≈ 90',
      '≤ 17 / ≤ 7',
      `${ratio(full.heaviest)} / ${ratio(full.flat)} (ms: ${full.text})`,
      full.heaviest / baseline <= 17 && full.flat / baseline <= 7,
    ),
    figure(
      'coarse preview 256², five yardstick pictures, one thread (half of it on two)',
      '–',
      'flat ≤ 200 ms, heaviest ≤ 500 ms',
      `flat ${preview.flat.toFixed(0)} ms, heaviest ${preview.heaviest.toFixed(0)} ms`,
      preview.flat <= 200 && preview.heaviest <= 500,
    ),
    figure('peak memory of a process that paints one 1024²', '330 MB', '≤ 200 MB', `${peak.toFixed(0)} MB`, peak <= 200),
  ];
}

async function pixelsOfScene(side: number): Promise<Buffer> {
  const { picture } = drawSubject('artichoke', 7, side, side);
  return sharp(Buffer.from(picture.data), { raw: { width: side, height: side, channels: 4 } })
    .png()
    .toBuffer();
}

/** Megabytes a fresh process needed at most to draw a subject at 1024² and paint it in the heaviest manner. */
function peakMemory(): number {
  const child = spawnSync(process.execPath, ['--import', 'tsx', fileURLToPath(new URL('./peak.ts', import.meta.url))], {
    encoding: 'utf8',
  });
  const kilobytes = Number(child.stdout.trim());
  if (child.status !== 0 || !(kilobytes > 0)) throw new Error(`The memory measurement failed: ${child.stderr}`);
  return kilobytes / 1024;
}
