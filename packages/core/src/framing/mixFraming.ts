import { nearestColour } from '../measure/palette.ts';
import type { PaletteColour } from '../measure/types.ts';
import { isFramed, type Framing } from './types.ts';

/**
 * The framing of several in parts: margins and corners are means; seats are means of those that have one. The sheet is that of the one with
 * the most margin by its parts: in its own colour when that source gives colour, else in the palette's nearest, so that no colour comes in
 * beside it. Null when none frames.
 */
export function mixFraming(
  sources: readonly { framing: Framing; parts: number; colour: boolean }[],
  palette: PaletteColour[],
): Framing | null {
  const used = sources.filter(s => s.parts > 0 && isFramed(s.framing));
  if (used.length === 0) return null;
  const mean = (list: typeof used, of: (f: Framing) => number): number =>
    list.reduce((sum, s) => sum + s.parts * of(s.framing), 0) / list.reduce((sum, s) => sum + s.parts, 0);
  const wide = ({ parts, framing }: (typeof used)[number]): number => parts * framing.margins.reduce((sum, m) => sum + m, 0);
  const { framing: first, colour } = used.reduce((p, s) => (wide(s) > wide(p) ? s : p));
  const { sheet } = first;
  const seated = used.filter(s => s.framing.seat);
  return {
    margins: [0, 1, 2, 3].map(k => mean(used, f => f.margins[k])) as Framing['margins'],
    corner: mean(used, f => f.corner),
    sheet: sheet && !colour && palette.length > 0 ? plain(palette[nearestColour(sheet, palette)]) : sheet,
    seat:
      seated.length > 0
        ? { x: mean(seated, f => f.seat!.x), y: mean(seated, f => f.seat!.y), size: mean(seated, f => f.seat!.size) }
        : null,
  };
}

function plain({ L, a, b }: PaletteColour): { L: number; a: number; b: number } {
  return { L, a, b };
}
