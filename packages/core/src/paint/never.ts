import type { Lab } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';

/** Moves palette colours that fall inside a forbidden ball straight out to its surface; a colour at its centre goes grey. */
export function avoidColours(palette: PaletteColour[], never: (Lab & { radius: number })[] | undefined): PaletteColour[] {
  if (!never || never.length === 0) return palette;
  return palette.map(colour => {
    let out = colour;
    for (const n of never) {
      const da = out.a - n.a;
      const db = out.b - n.b;
      const dL = out.L - n.L;
      const d = Math.sqrt(dL * dL + da * da + db * db);
      if (d >= n.radius) continue;
      if (d < 1e-6) out = { ...out, a: 0, b: 0 };
      else {
        const k = (n.radius * 1.02) / d;
        out = { ...out, L: n.L + dL * k, a: n.a + da * k, b: n.b + db * k };
      }
    }
    return out;
  });
}
