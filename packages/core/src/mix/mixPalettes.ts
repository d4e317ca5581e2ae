import { labDistance2 } from '../colour/oklab.ts';
import { blendColours, normaliseShares } from '../measure/palette.ts';
import type { PaletteColour } from '../measure/types.ts';
import { lerp } from '../number/scalar.ts';
import { length2 } from '../number/trig.ts';

interface Weighted {
  palette: PaletteColour[];
  weight: number;
}

/**
 * One palette between several. Colours are paired by a greedy transport plan (nearest first, shares conserved) and each pair moves along
 * its own path; a pair of unlike hues keeps the larger source's hue rather than meeting in a brown, so palettes stay lively half-way.
 */
export function mixPalettes(sources: Weighted[], count = 8): PaletteColour[] {
  const used = sources.filter(s => s.weight > 0 && s.palette.length > 0);
  if (used.length === 0) return [];
  let mixed = normaliseShares(used[0].palette);
  let weight = used[0].weight;
  for (const next of used.slice(1)) {
    weight += next.weight;
    mixed = between(mixed, normaliseShares(next.palette), next.weight / weight);
  }
  return normaliseShares(reduceColours(mixed, count)).sort((p, q) => p.L - q.L);
}

function between(from: PaletteColour[], to: PaletteColour[], t: number): PaletteColour[] {
  const left = from.map(c => c.share);
  const right = to.map(c => c.share);
  const pairs: [number, number, number][] = [];
  from.forEach((p, i) => to.forEach((q, j) => pairs.push([labDistance2({ ...p, L: p.L * 1.2 }, { ...q, L: q.L * 1.2 }), i, j])));
  pairs.sort((x, y) => x[0] - y[0]);
  const out: PaletteColour[] = [];
  for (const [, i, j] of pairs) {
    const moved = Math.min(left[i], right[j]);
    if (moved <= 1e-4) continue;
    left[i] -= moved;
    right[j] -= moved;
    out.push(...meet(from[i], to[j], t, moved));
  }
  return out;
}

/** One colour on the path between two; two colours (each with its part of the share) when their hues oppose. */
function meet(p: PaletteColour, q: PaletteColour, t: number, share: number): PaletteColour[] {
  const cp = length2(p.a, p.b);
  const cq = length2(q.a, q.b);
  const cosine = cp > 0.03 && cq > 0.03 ? (p.a * q.a + p.b * q.b) / (cp * cq) : 1;
  if (cosine < 0.35)
    return [
      { ...p, share: share * (1 - t) },
      { ...q, share: share * t },
    ].filter(c => c.share > 1e-4);
  const a = lerp(p.a, q.a, t);
  const b = lerp(p.b, q.b, t);
  const wanted = lerp(cp, cq, t);
  const gain = Math.min(2, wanted / Math.max(1e-4, length2(a, b)));
  return [{ L: lerp(p.L, q.L, t), a: a * gain, b: b * gain, share }];
}

/** Merges the pair whose merging loses least until at most `count` colours are left. */
function reduceColours(colours: PaletteColour[], count: number): PaletteColour[] {
  const out = colours.slice();
  for (;;) {
    let best: [number, number] | undefined;
    let least = out.length > count ? Infinity : 0.0012;
    for (let i = 0; i < out.length; i++)
      for (let j = i + 1; j < out.length; j++) {
        const d = labDistance2(out[i], out[j]);
        const loss = out.length > count ? d * Math.min(out[i].share, out[j].share) : d;
        if (loss < least) {
          least = loss;
          best = [i, j];
        }
      }
    if (!best) return out;
    out[best[0]] = blendColours(out[best[0]], out[best[1]]);
    out.splice(best[1], 1);
  }
}
