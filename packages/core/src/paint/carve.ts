import { blur, blurWide } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import type { Style } from '../mix/style.ts';
import type { Areas } from './flat.ts';
import { markField } from './field.ts';
import { layInk } from './planes.ts';
import type { Sketch } from './sketch.ts';
import { localLight } from './localLight.ts';
import { drawStreamlines } from './streamlines.ts';

/**
 * Light gouges in dark ink, in place. Lights and darks are judged among the inked places around each place, so a dark subject is opened on
 * its light side as far as a light one: gouges widen into bare paper towards the light and stop short of the shade.
 */
export function carveLight(out: LabPlanes, sketch: Sketch, areas: Areas | null, style: Style, seed: number): void {
  const { width, height, u, scale, content, palette, assignment, mask } = sketch;
  const n = width * height;
  const paper = palette[assignment.ground];
  const inked = new Float32Array(n);
  for (let i = 0; i < n; i++)
    inked[i] = (areas ? areas.sketchIndex[i] !== assignment.ground : mask ? mask[i] > 0.5 : true) ? 1 : 0;
  const near = blur(content.L, width, height, 1.1 * u);
  const light = localLight(near, inked, width, height, 42 * u);
  const fine = blurWide(content.L, width, height, 7 * u);
  const tone = inked;
  for (let i = 0; i < n; i++) {
    if (inked[i] === 0) continue;
    const t = light[i];
    tone[i] = clamp(0.08 + smoothstep(-0.7, 1.7, t) * 0.68 + (near[i] - fine[i]) * 2.4 * (t > -0.6 ? 1 : 0.3));
  }
  const gap = style.amounts.carveGap * u * scale;
  const field = markField(sketch, style.amounts.hatchAngle, 0.95, 0.4, seed);
  const marks = drawStreamlines(field, tone, out.width, out.height, {
    gap,
    length: gap * 4.6,
    width: 0.95,
    turn: 0,
    least: 0.16,
    stray: 0.9,
    taper: 0.75,
    seed,
    pass: 'gouges',
  });
  layInk(out, marks, paper, style.amounts.carve);
}
