import { blur, blurWide } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { quantiles } from '../measure/quantiles.ts';
import type { Style } from '../mix/style.ts';
import { clamp, lerp } from '../number/scalar.ts';
import { markField } from './field.ts';
import { fadeTo, layInk } from './planes.ts';
import type { Sketch } from './sketch.ts';
import { localLight } from './localLight.ts';
import { drawStreamlines } from './streamlines.ts';

/** Dark lines that carry the tone by their width, in place; the ground beneath them is cleared first. */
export function hatchDark(out: LabPlanes, sketch: Sketch, style: Style, seed: number): void {
  const { width, height, u, scale, content, palette, assignment, mask } = sketch;
  const paper = palette[assignment.ground];
  const dark = palette[0];
  const s = style.amounts;
  const n = width * height;
  const near = blur(content.L, width, height, 1.1 * u);
  const around = blurWide(content.L, width, height, 20 * u);
  // A dark subject is modelled by its own lights and darks.
  const light = mask ? localLight(near, mask, width, height, 42 * u) : null;
  const tone17 = quantiles(content.L, 17);
  const range = Math.max(0.05, tone17[15] - tone17[0]);
  const clear = s.hatch * 0.88;
  fadeTo(out, paper, clear * 0.88, clear * 0.9);
  // A look that works its ground leaves no part of the sheet without lines.
  const floor = 0.19 * s.groundWork;
  const tone = new Float32Array(n);
  const cross = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const t = 1 - clamp((near[i] - tone17[0]) / range);
    const ground = mask ? 0.5 + 0.5 * mask[i] : 1;
    const form = mask && light && mask[i] > 0.5 ? clamp(0.5 - 0.33 * light[i]) : t;
    const deep = 0.14 + lerp(t * (0.5 + 0.5 * t), form, 0.42) - (near[i] - around[i]) * 1.3;
    const drawn = clamp(deep, 0, 0.9) * ground;
    tone[i] = drawn > floor ? drawn : floor;
    cross[i] = clamp((tone[i] - 0.56) * 1.7);
  }
  const field = markField(sketch, s.hatchAngle, s.hatchFollow, 0.06, seed);
  const gap = s.hatchGap * u * scale;
  const settings = {
    gap,
    length: 150 * u * scale,
    width: 0.84,
    turn: 0,
    least: 0.1,
    stray: 0.12,
    taper: 0.06,
    seed,
    pass: 'hatching',
  };
  layInk(out, drawStreamlines(field, tone, out.width, out.height, settings), dark, s.hatch);
  if (s.cross <= 0.05) return;
  const second = drawStreamlines(field, cross, out.width, out.height, {
    ...settings,
    gap: gap * 1.05,
    length: 44 * u * scale,
    width: 0.8 * s.cross,
    least: 0.14,
    turn: 1.15,
    pass: 'cross',
  });
  layInk(out, second, dark, s.hatch);
}
