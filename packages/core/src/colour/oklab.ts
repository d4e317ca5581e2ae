import { kernels, plane, put, room, take, within } from '@zinc/kernels';
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

/** Pixels done at a time, so that what is copied to and from the kernels stays small and near. */
const BLOCK = 16384;

/** OKLab planes of a picture; transparent parts stand on white. Throws PictureError on a malformed picture. */
export function toLabPlanes(picture: Picture): LabPlanes {
  checkPicture(picture);
  const { width, height, data } = picture;
  const n = width * height;
  const out = { width, height, L: new Float32Array(n), a: new Float32Array(n), b: new Float32Array(n) };
  for (let start = 0; start < n; start += BLOCK)
    within(() => {
      const end = Math.min(n, start + BLOCK);
      const at = { L: plane(end - start), a: plane(end - start), b: plane(end - start) };
      kernels.toLab(put(data.subarray(start * 4, end * 4)), end - start, at.L, at.a, at.b, put(LINEAR));
      take(at.L, out.L.subarray(start, end));
      take(at.a, out.a.subarray(start, end));
      take(at.b, out.b.subarray(start, end));
    });
  return out;
}

/** A picture from OKLab planes; colours outside sRGB are clipped by channel. Opaque, or with the alpha of `alphaOf` of the same size. */
export function fromLabPlanes(planes: LabPlanes, alphaOf?: Picture): Picture {
  const { width, height, L, a, b } = planes;
  const n = width * height;
  const data = new Uint8ClampedArray(n * 4);
  for (let start = 0; start < n; start += BLOCK)
    within(() => {
      const end = Math.min(n, start + BLOCK);
      const bytes = room((end - start) * 4);
      const [pL, pa, pb] = [L, a, b].map(p => put(p.subarray(start, end)));
      const alphas = alphaOf ? put(alphaOf.data.subarray(start * 4, end * 4)) : 0;
      kernels.fromLab(pL, pa, pb, end - start, bytes, put(GAMMA), GAMMA_STEPS, alphas);
      take(bytes, data.subarray(start * 4, end * 4));
    });
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
