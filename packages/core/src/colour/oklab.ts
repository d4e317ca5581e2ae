import { cbrt, pow } from '../number/trig.ts';
import { clamp } from '../number/scalar.ts';
import { checkPicture, type Lab, type LabPlanes, type Picture } from '../image/types.ts';

/*
 * OKLab: Björn Ottosson, "A perceptual color space for image processing", 2020. sRGB transfer: IEC 61966-2-1.
 * Tables replace the transfer function per pixel; the curves themselves are evaluated once, by our own `pow`.
 */
const LINEAR = new Float32Array(256);
for (let i = 0; i < 256; i++) {
  const c = i / 255;
  LINEAR[i] = c <= 0.04045 ? c / 12.92 : pow((c + 0.055) / 1.055, 2.4);
}
const GAMMA_STEPS = 8192;
const GAMMA = new Uint8Array(GAMMA_STEPS + 1);
for (let i = 0; i <= GAMMA_STEPS; i++) {
  const c = i / GAMMA_STEPS;
  GAMMA[i] = Math.round(255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * pow(c, 1 / 2.4) - 0.055));
}

// Cube roots from two tables with straight lines between, fine below 1/64 and coarser above; off by less than 2e-6 from 1/255 linear up.
const ROOT_STEPS = 4096;
const FINE_BELOW = 1 / 64;
const ROOTS = new Float32Array(ROOT_STEPS + 2);
const FINE_ROOTS = new Float32Array(ROOT_STEPS + 2);
for (let i = 0; i < ROOTS.length; i++) {
  ROOTS[i] = cbrt(i / ROOT_STEPS);
  FINE_ROOTS[i] = cbrt((i * FINE_BELOW) / ROOT_STEPS);
}

function root(x: number): number {
  const table = x < FINE_BELOW ? FINE_ROOTS : ROOTS;
  let t = x < FINE_BELOW ? x * (ROOT_STEPS / FINE_BELOW) : x * ROOT_STEPS;
  if (t > ROOT_STEPS) t = ROOT_STEPS;
  const i = t | 0;
  const p = table[i];
  return p + (table[i + 1] - p) * (t - i);
}

function encode(c: number): number {
  return c <= 0 ? 0 : c >= 1 ? 255 : GAMMA[(c * GAMMA_STEPS + 0.5) | 0];
}

/** OKLab planes of a picture; transparent parts stand on white. Throws PictureError on a malformed picture. */
export function toLabPlanes(picture: Picture): LabPlanes {
  checkPicture(picture);
  const { width, height, data } = picture;
  const n = width * height;
  const L = new Float32Array(n);
  const a = new Float32Array(n);
  const b = new Float32Array(n);
  for (let i = 0, j = 0; i < n; i++, j += 4) {
    let red = LINEAR[data[j]];
    let green = LINEAR[data[j + 1]];
    let blue = LINEAR[data[j + 2]];
    if (data[j + 3] < 255) {
      const alpha = data[j + 3] / 255;
      red = red * alpha + 1 - alpha;
      green = green * alpha + 1 - alpha;
      blue = blue * alpha + 1 - alpha;
    }
    const l = root(0.4122214708 * red + 0.5363325363 * green + 0.0514459929 * blue);
    const m = root(0.2119034982 * red + 0.6806995451 * green + 0.1073969566 * blue);
    const s = root(0.0883024619 * red + 0.2817188376 * green + 0.6299787005 * blue);
    L[i] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
    a[i] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
    b[i] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
  }
  return { width, height, L, a, b };
}

/** An opaque picture from OKLab planes; colours outside sRGB are clipped by channel. */
export function fromLabPlanes(planes: LabPlanes): Picture {
  const { width, height, L, a, b } = planes;
  const n = width * height;
  const data = new Uint8ClampedArray(n * 4);
  for (let i = 0, j = 0; i < n; i++, j += 4) {
    let l = L[i] + 0.3963377774 * a[i] + 0.2158037573 * b[i];
    let m = L[i] - 0.1055613458 * a[i] - 0.0638541728 * b[i];
    let s = L[i] - 0.0894841775 * a[i] - 1.291485548 * b[i];
    l = l * l * l;
    m = m * m * m;
    s = s * s * s;
    data[j] = encode(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s);
    data[j + 1] = encode(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s);
    data[j + 2] = encode(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s);
    data[j + 3] = 255;
  }
  return { width, height, data };
}

/** Linear sRGB, three channels from 0 to 1 (held there), of an OKLab colour. */
export function linearOfLab(c: Lab): [number, number, number] {
  const l = (c.L + 0.3963377774 * c.a + 0.2158037573 * c.b) ** 3;
  const m = (c.L - 0.1055613458 * c.a - 0.0638541728 * c.b) ** 3;
  const s = (c.L - 0.0894841775 * c.a - 1.291485548 * c.b) ** 3;
  return [
    clamp(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
    clamp(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
    clamp(-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s),
  ];
}

/** OKLab of linear sRGB channels, each 0 or more. */
export function labOfLinear([red, green, blue]: readonly [number, number, number]): Lab {
  const l = cbrt(0.4122214708 * red + 0.5363325363 * green + 0.0514459929 * blue);
  const m = cbrt(0.2119034982 * red + 0.6806995451 * green + 0.1073969566 * blue);
  const s = cbrt(0.0883024619 * red + 0.2817188376 * green + 0.6299787005 * blue);
  return {
    L: 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    a: 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    b: 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  };
}

/** OKLab of a colour written as `#rrggbb`. Throws RangeError on anything else. */
export function labOfHex(hex: string): Lab {
  if (!/^#[0-9a-f]{6}$/i.test(hex))
    throw new RangeError(`Got the colour "${hex}"; wanted six hexadecimal digits after #, such as #8e2a4b.`);
  const v = parseInt(hex.slice(1), 16);
  const data = new Uint8ClampedArray([v >> 16, (v >> 8) & 255, v & 255, 255]);
  const planes = toLabPlanes({ width: 1, height: 1, data });
  return { L: planes.L[0], a: planes.a[0], b: planes.b[0] };
}

/** `#rrggbb` nearest to an OKLab colour. */
export function hexOfLab(lab: Lab): string {
  const one = (v: number): Float32Array => Float32Array.of(v);
  const { data } = fromLabPlanes({ width: 1, height: 1, L: one(clamp(lab.L)), a: one(lab.a), b: one(lab.b) });
  return '#' + [data[0], data[1], data[2]].map(v => v.toString(16).padStart(2, '0')).join('');
}

/** Squared OKLab distance with chroma weighted by `chromaWeight`. */
export function labDistance2(p: Lab, q: Lab, chromaWeight = 1): number {
  const dL = p.L - q.L;
  const da = p.a - q.a;
  const db = p.b - q.b;
  return dL * dL + chromaWeight * (da * da + db * db);
}
