import { toLabPlanes } from '../colour/oklab.ts';
import type { Lab, Picture } from '../image/types.ts';

/** Where a source's colour turned up unasked: share of the picture, and the places that hold most of it (0–1 of the frame). */
export interface Leak {
  share: number;
  places: { x: number; y: number; width: number; height: number; share: number }[];
}

const TILES = 12;
/** A colour this near to a source's, and this much nearer to it than to any wanted one, is the source's. */
const NEAR = 0.07;
const CLEARLY = 0.03;

/**
 * Area and place of colours nearer to a source's palette than to any wanted colour (of the content, the brand or the look). A source
 * colour that is itself wanted cannot leak. Throws PictureError on a malformed picture.
 */
export function leakOf(picture: Picture, source: readonly Lab[], wanted: readonly Lab[]): Leak {
  const { width, height, L, a, b } = toLabPlanes(picture);
  const distance = (i: number, c: Lab): number => {
    const dL = L[i] - c.L;
    const da = a[i] - c.a;
    const db = b[i] - c.b;
    return Math.sqrt(dL * dL + 1.6 * (da * da + db * db));
  };
  const foreign = source.filter(s =>
    wanted.every(w => Math.sqrt((s.L - w.L) ** 2 + 1.6 * ((s.a - w.a) ** 2 + (s.b - w.b) ** 2)) > CLEARLY * 1.5),
  );
  const counts = new Uint32Array(TILES * TILES);
  let leaked = 0;
  if (foreign.length > 0)
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++) {
        let near = Infinity;
        for (const c of foreign) near = Math.min(near, distance(i, c));
        if (near > NEAR) continue;
        let own = Infinity;
        for (const c of wanted) own = Math.min(own, distance(i, c));
        if (own < near + CLEARLY) continue;
        leaked++;
        counts[Math.floor((y * TILES) / height) * TILES + Math.floor((x * TILES) / width)]++;
      }
  const places = Array.from(counts, (n, k) => ({
    x: (k % TILES) / TILES,
    y: Math.floor(k / TILES) / TILES,
    width: 1 / TILES,
    height: 1 / TILES,
    share: n / L.length,
  }))
    .filter(p => p.share > 0.0005)
    .sort((p, q) => q.share - p.share)
    .slice(0, 6);
  return { share: leaked / L.length, places };
}
