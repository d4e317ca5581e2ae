import { labOfHex } from './colour/oklab.ts';
import { randomFor } from './number/random.ts';
import type { Picture } from './image/types.ts';

/** A picture whose colour at each place a function gives, for tests. */
export function pictureOf(
  width: number,
  height: number,
  colour: (x: number, y: number) => readonly [number, number, number],
): Picture {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, o += 4) {
      data.set(colour(x, y), o);
      data[o + 3] = 255;
    }
  return { width, height, data };
}

/** {@link pictureOf} by place: x and y are parts of its width and height. */
export function pictureOfPlaces(
  width: number,
  height: number,
  colour: (x: number, y: number) => readonly [number, number, number],
): Picture {
  return pictureOf(width, height, (x, y) => colour((x + 0.5) / width, (y + 0.5) / height));
}

/** Round shapes of four colours on paper: something with areas, edges and shading. */
export function sampleContent(size: number, seed = 1): Picture {
  const random = randomFor(seed, 'sample content');
  const discs = Array.from({ length: 6 }, () => ({
    x: random(),
    y: random(),
    r: 0.08 + random() * 0.15,
    c: [40 + random() * 180, 40 + random() * 160, 40 + random() * 160] as const,
  }));
  return pictureOf(size, size, (x, y) => {
    const u = x / size;
    const v = y / size;
    for (const d of discs) {
      const dx = (u - d.x) / d.r;
      const dy = (v - d.y) / d.r;
      if (dx * dx + dy * dy < 1) {
        const light = 1 - 0.35 * (dx + dy);
        return [d.c[0] * light, d.c[1] * light, d.c[2] * light];
      }
    }
    return [243, 238, 226];
  });
}

/** Straight dark lines of a period (pixels) and slant on paper. */
export function stripes(size: number, period: number, angle: number): Picture {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return pictureOf(size, size, (x, y) => {
    const t = (((x * -s + y * c) / period) % 1) + 1;
    const v = 40 + 200 * (0.5 + 0.5 * Math.cos(2 * Math.PI * t));
    return [v, v, v];
  });
}

export const BRAND = [
  { name: 'soot', role: 'line', ...labOfHex('#23262b') },
  { name: 'chalk', role: 'ground', ...labOfHex('#f3eee2') },
  { name: 'beet', role: 'lead', ...labOfHex('#8e2a4b') },
  { name: 'brine', role: 'second', ...labOfHex('#5f7f6b') },
];
