import { fractalNoise, valueNoise } from '@zinc/core/number/noise';
import { clamp, smoothstep } from '@zinc/core/number/scalar';
import { sin } from '@zinc/core/number/trig';
import type { Lab } from '@zinc/core';
import { DAYLIGHT, hex, mixLab, type Canvas, type Lamp } from './canvas/canvas.ts';

/** Where a subject can stand, other than where it likes to. */
export const SETTINGS = ['plain ground', 'table', 'garden bed', 'window'] as const;
export type Setting = (typeof SETTINGS)[number];

/** The light it can stand in. */
export const LIGHTS = ['daylight', 'light from the right', 'light from above', 'evening', 'dusk', 'dawn'] as const;
export type Light = (typeof LIGHTS)[number];

export const SEASONS = ['spring', 'summer', 'autumn', 'winter'] as const;
export type Season = (typeof SEASONS)[number];

/** Boards along x: a colour with grain, a dark joint between one board and the next. */
function boards(x: number, y: number, count: number, wood: Lab, seed: number): Lab {
  const at = y * count;
  const board = Math.floor(at);
  const joint = at - board > 0.95 ? -0.12 : 0;
  const n = fractalNoise(x * 3 + board * 7, y * 46, seed, 4) - 0.5;
  return { L: wood.L + 0.14 * n + joint + 0.03 * (valueNoise(board * 3.7, 1, seed) - 0.5), a: wood.a, b: wood.b };
}

/** Draws a setting into the whole frame. */
export function drawSetting(canvas: Canvas, setting: Setting, seed: number): void {
  const paper = hex('#f3eee2');
  if (setting === 'plain ground') return canvas.fill(() => paper);
  if (setting === 'table') {
    const wall = hex('#e7e4d8');
    const wood = hex('#b78a5a');
    return canvas.fill((x, y) =>
      y < 0.7 ? { ...wall, L: wall.L - 0.05 * clamp(y) } : boards(x, (y - 0.7) * 1.6, 6, wood, seed),
    );
  }
  if (setting === 'garden bed') {
    const soil = hex('#6a4f38');
    const dark = hex('#3f2e20');
    const hedge = hex('#7f9a6a');
    const sky = hex('#e3ebe6');
    return canvas.fill((x, y) => {
      const brow = 0.6 + 0.02 * (fractalNoise(x * 6, 2, seed, 3) - 0.5);
      if (y < brow) {
        const leaves = fractalNoise(x * 18, y * 18, seed + 1, 4);
        const top = 0.47 + 0.06 * (fractalNoise(x * 4, 1, seed, 3) - 0.5);
        return y < top ? sky : { ...mixLab(hedge, hex('#4f6b45'), smoothstep(0.35, 0.7, leaves)) };
      }
      // Furrows run away to the horizon.
      const depth = (y - brow) / Math.max(0.05, 1.05 - brow);
      const row = sin((x - 0.5) * (34 / (0.35 + depth)) + 0.6);
      const clod = fractalNoise(x * 34, y * 60, seed + 2, 4) - 0.5;
      const c = mixLab(soil, dark, 0.45 - 0.4 * row + clod * 0.5);
      return { L: c.L + 0.1 * clod, a: c.a, b: c.b };
    });
  }
  const frame = hex('#f2efe6');
  const wall = hex('#cfc7b4');
  const sill = hex('#e6dfce');
  return canvas.fill((x, y) => {
    if (y > 0.77) return { ...sill, L: sill.L - 0.1 * smoothstep(0.77, 1, y) - (y < 0.785 ? 0.08 : 0) };
    const inside = x > 0.14 && x < 0.86 && y > 0.05;
    if (!inside) return wall;
    const bar = Math.abs(x - 0.5) < 0.013 || Math.abs(y - 0.4) < 0.011 || x < 0.165 || x > 0.835 || y < 0.075;
    if (bar) return frame;
    const cloud = fractalNoise(x * 3, y * 4, seed, 4);
    const sky = mixLab(hex('#bcd4dc'), hex('#eef1ea'), smoothstep(0.35, 0.65, cloud));
    const hill = 0.6 + 0.07 * (fractalNoise(x * 2.5, 5, seed, 2) - 0.5);
    return y > hill ? mixLab(hex('#a9bd94'), hex('#8aa57c'), smoothstep(hill, 0.77, y)) : sky;
  });
}

/** The lamp for a light and a season. */
export function lampFor(light: Light, season: Season | null): Lamp {
  const frost = season === 'winter' ? 0.75 : undefined;
  const tint =
    season === 'winter' ? ([-0.004, -0.012] as const) : season === 'autumn' ? ([0.006, 0.012] as const) : ([0, 0] as const);
  const lamps: Record<Light, Lamp> = {
    daylight: DAYLIGHT,
    'light from the right': { ...DAYLIGHT, towards: [0.55, -0.6, 0.58] },
    'light from above': { ...DAYLIGHT, towards: [-0.08, -0.85, 0.5] },
    evening: { towards: [0.85, -0.25, 0.4], level: 0.92, tint: [0.022, 0.042] },
    dusk: { towards: [-0.3, -0.5, 0.5], level: 0.62, tint: [-0.004, -0.045] },
    dawn: { towards: [-0.85, -0.2, 0.45], level: 0.97, tint: [0.018, 0.012] },
  };
  const lamp = lamps[light];
  return { ...lamp, frost, tint: [lamp.tint[0] + tint[0], lamp.tint[1] + tint[1]] };
}
