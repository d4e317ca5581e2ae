import type { Lab, LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';

type Forbidden = Lab & { radius: number };

/** Moves palette colours that fall inside a forbidden ball straight out to its surface; a colour at its centre goes grey. */
export function avoidColours(palette: PaletteColour[], never: Forbidden[] | undefined): PaletteColour[] {
  if (!never || never.length === 0) return palette;
  return palette.map(colour => never.reduce((c, n) => ({ ...c, ...pushOut(c, n) }), colour));
}

function pushOut(c: Lab, n: Forbidden): Lab {
  const dL = c.L - n.L;
  const da = c.a - n.a;
  const db = c.b - n.b;
  const d = Math.sqrt(dL * dL + da * da + db * db);
  if (d >= n.radius) return c;
  if (d < 1e-6) return { L: c.L, a: 0, b: 0 };
  const k = (n.radius * 1.02) / d;
  return { L: n.L + dL * k, a: n.a + da * k, b: n.b + db * k };
}

/** Moves every pixel that came to lie inside a forbidden ball (a mixture at an edge, content that shows through) out of it, in place. */
export function keepColoursOut(planes: LabPlanes, never: Forbidden[] | undefined): void {
  const { L, a, b } = planes;
  for (const n of never ?? []) {
    const r2 = n.radius * n.radius;
    for (let i = 0; i < L.length; i++) {
      const da = a[i] - n.a;
      const db = b[i] - n.b;
      const dL = L[i] - n.L;
      if (da * da + db * db + dL * dL >= r2) continue;
      const out = pushOut({ L: L[i], a: a[i], b: b[i] }, n);
      L[i] = out.L;
      a[i] = out.a;
      b[i] = out.b;
    }
  }
}
