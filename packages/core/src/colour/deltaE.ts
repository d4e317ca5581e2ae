/**
 * CIEDE2000 between two CIELAB colours (D65), kL = kC = kH = 1. Sharma, Wu & Dalal, "The CIEDE2000 color-difference formula:
 * implementation notes, supplementary test data, and mathematical observations", 2005.
 */
export function deltaE2000(p: readonly [number, number, number], q: readonly [number, number, number]): number {
  const rad = Math.PI / 180;
  const [L1, a1, b1] = p;
  const [L2, a2, b2] = q;
  const meanC = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const c7 = meanC ** 7;
  const g = 0.5 * (1 - Math.sqrt(c7 / (c7 + 25 ** 7)));
  const ap1 = (1 + g) * a1;
  const ap2 = (1 + g) * a2;
  const C1 = Math.hypot(ap1, b1);
  const C2 = Math.hypot(ap2, b2);
  const hue = (a: number, b: number): number => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / rad + 360) % 360);
  const h1 = hue(ap1, b1);
  const h2 = hue(ap2, b2);
  const dL = L2 - L1;
  const dC = C2 - C1;
  let dh = C1 * C2 === 0 ? 0 : h2 - h1;
  if (dh > 180) dh -= 360;
  else if (dh < -180) dh += 360;
  const dH = 2 * Math.sqrt(C1 * C2) * Math.sin((dh / 2) * rad);
  const Lm = (L1 + L2) / 2;
  const Cm = (C1 + C2) / 2;
  let hm = h1 + h2;
  if (C1 * C2 !== 0) hm = Math.abs(h1 - h2) <= 180 ? hm / 2 : hm < 360 ? (hm + 360) / 2 : (hm - 360) / 2;
  const T =
    1 -
    0.17 * Math.cos((hm - 30) * rad) +
    0.24 * Math.cos(2 * hm * rad) +
    0.32 * Math.cos((3 * hm + 6) * rad) -
    0.2 * Math.cos((4 * hm - 63) * rad);
  const turn = 30 * Math.exp(-(((hm - 275) / 25) ** 2));
  const cm7 = Cm ** 7;
  const rc = 2 * Math.sqrt(cm7 / (cm7 + 25 ** 7));
  const sl = 1 + (0.015 * (Lm - 50) ** 2) / Math.sqrt(20 + (Lm - 50) ** 2);
  const sc = 1 + 0.045 * Cm;
  const sh = 1 + 0.015 * Cm * T;
  const rt = -Math.sin(2 * turn * rad) * rc;
  return Math.sqrt((dL / sl) ** 2 + (dC / sc) ** 2 + (dH / sh) ** 2 + rt * (dC / sc) * (dH / sh));
}
