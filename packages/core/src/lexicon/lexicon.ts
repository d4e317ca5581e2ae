import type { StyleAmounts } from '../mix/style.ts';

/** What a style word does: settings it moves to (with how far, 0–1) and how it changes palette and tone. */
export interface Meaning {
  words: string;
  to?: Partial<StyleAmounts>;
  /** Factor on chroma, shift of lightness, turn towards warm (+) or cool (−) in OKLab b, and how many colours are left at most. */
  chroma?: number;
  lightness?: number;
  warmth?: number;
  colours?: number;
  /** Factor on tonal range, and shift of the middle tone. */
  contrast?: number;
  key?: number;
}

/**
 * Style words of the trade and what each does. Words that mean the same share a line and are parted by commas. A word moves a style three
 * quarters of the way to what is written here; two words that touch the same setting meet in the middle.
 */
export const LEXICON: readonly Meaning[] = [
  {
    words: 'engraved, engraving, burin, intaglio, copperplate',
    to: { hatch: 1, outline: 0.8, flat: 0.2, brush: 0, wash: 0, carve: 0, hatchGap: 4 },
  },
  { words: 'hatched, hatching, parallel lines, shaded with lines, lined', to: { hatch: 0.85, hatchFollow: 0.4 } },
  { words: 'cross-hatched, crosshatched, cross hatching, cross-hatching', to: { hatch: 0.9, cross: 0.9 } },
  { words: 'fine-lined, fine lines, hairline, delicate lines, spidery', to: { outline: 0.7, outlineWidth: 0.8, hatchGap: 3.2 } },
  { words: 'outlined, contoured, contour, keyline, keylined, line drawing', to: { outline: 0.85, outlineWidth: 1.6 } },
  { words: 'bold outline, heavy outline, thick outline, heavy line, bold line', to: { outline: 1, outlineWidth: 3.2 } },
  { words: 'no outline, lineless, without lines, unlined', to: { outline: 0, lightLines: 0, hatch: 0 } },
  {
    words: 'block print, block printed, woodblock, wood engraving, woodcut, linocut, lino, relief print',
    to: { carve: 1, flat: 1, lightLines: 0.9, brush: 0, wash: 0, hatch: 0, edgeKeep: 0.7 },
  },
  { words: 'carved, gouged, cut, chiselled', to: { carve: 0.9, lightLines: 0.8 } },
  { words: 'stamped, potato print, rubber stamp', to: { flat: 1, carve: 0.3, wobble: 0.6, grain: 0.5 }, colours: 3 },
  {
    words: 'flat, flat colour, flat colours, solid colour, poster, posterised',
    to: { flat: 1, brush: 0, wash: 0, smooth: 2.8, edgeKeep: 0.6 },
  },
  {
    words: 'graphic, simplified, simple shapes, reduced, minimal, pared back',
    to: { flat: 1, simplify: 0.9, smooth: 3.4, edgeKeep: 0.3 },
  },
  { words: 'detailed, intricate, elaborate, fine detail, busy', to: { simplify: 0, smooth: 0.8, edgeKeep: 0.9 } },
  {
    words: 'cut paper, paper cut, papercut, collage, paper collage, layered paper',
    to: { flat: 1, shadow: 1, simplify: 0.8, brush: 0, wash: 0, hatch: 0, carve: 0 },
  },
  { words: 'layered, stacked, with shadows, raised', to: { shadow: 0.8 } },
  { words: 'shadowless, without shadows, no shadows', to: { shadow: 0 } },
  { words: 'stencil, stencilled, pochoir', to: { flat: 1, simplify: 0.6, edgeKeep: 0.1, grain: 0.2 }, colours: 4 },
  {
    words: 'gouache, poster paint, body colour, tempera',
    to: { brush: 0.9, flat: 0.8, bristle: 0.7, tooth: 0, relief: 0, wash: 0 },
  },
  { words: 'painted, painterly, brushed, brushy, brushwork', to: { brush: 0.9, flat: 0.3 } },
  {
    words: 'thick paint, impasto, heavy paint, thickly painted, palette knife, buttery',
    to: { brush: 1, relief: 1, flat: 0.05, brushSize: 6, tooth: 0 },
  },
  { words: 'thin paint, thinly painted, scumbled', to: { brush: 0.8, relief: 0, bristle: 0.9 } },
  { words: 'broad strokes, wide strokes, big brush, large strokes, bold strokes', to: { brush: 0.9, brushSize: 9 } },
  { words: 'small strokes, short strokes, dabs, dabbed, stippled', to: { brush: 0.9, brushSize: 2.6, brushLength: 2.5 } },
  { words: 'long strokes, sweeping strokes, sweeping, flowing strokes', to: { brush: 0.9, brushLength: 11 } },
  { words: 'swirling, swirls, whirling, turbulent', to: { brush: 0.9, swirl: 1 } },
  { words: 'streaky, streaked, streaks, hairy, bristly', to: { brush: 0.8, bristle: 1 } },
  { words: 'dry, dry brush, drybrush, dry-brushed', to: { brush: 0.9, tooth: 0.6, bristle: 0.9, wash: 0 } },
  {
    words: 'pastel, soft pastel, chalk pastel, chalk, chalked, chalky',
    to: { brush: 1, tooth: 0.9, flat: 0.05, relief: 0, wash: 0 },
  },
  { words: 'crayon, waxy crayon, wax crayon, oil pastel', to: { brush: 1, tooth: 0.7, brushSize: 4, brushLength: 9 } },
  { words: 'charcoal, conte, soot drawing', to: { brush: 1, tooth: 0.9, grain: 0.5 }, chroma: 0.05, colours: 3 },
  {
    words: 'pencil, graphite, pencilled, coloured pencil',
    to: { hatch: 0.6, hatchGap: 3, outline: 0.5, outlineWidth: 0.8, grain: 0.4, tooth: 0.5 },
  },
  { words: 'pen and ink, pen, ink drawing, inked, nib', to: { outline: 0.9, hatch: 0.5, flat: 0.3, brush: 0, wash: 0 } },
  {
    words: 'wash, washes, watercolour, watercolor, aquarelle, water colour',
    to: { wash: 1, flat: 0.55, brush: 0, hatch: 0, carve: 0 },
  },
  { words: 'wet, wet in wet, bleeding, bled, runny, loose wash', to: { wash: 0.9, washBleed: 1 } },
  { words: 'pooled, pooling, dark edges, tide lines, rimmed', to: { wash: 0.8, washEdge: 1 } },
  { words: 'line and wash, ink and wash, pen and wash', to: { wash: 0.9, outline: 0.85, outlineWidth: 1.4, flat: 0.5 } },
  { words: 'glazed, translucent, transparent, sheer', to: { wash: 0.7 }, lightness: 0.04 },
  { words: 'opaque, solid, dense, covering', to: { wash: 0, flat: 0.9 } },
  {
    words: 'spot print, screen print, screenprint, silkscreen, spot colour, spot colours, overprinted, overprint',
    to: { spot: 1, flat: 1, misregister: 2.4, brush: 0, wash: 0, hatch: 0, carve: 0 },
  },
  { words: 'dotted, dots, halftone, screened, screen dots', to: { spot: 1, tint: 0.9, flat: 1 } },
  { words: 'coarse dots, big dots, coarse screen', to: { spot: 1, tint: 0.9, dotGap: 9 } },
  { words: 'fine dots, fine screen', to: { spot: 1, tint: 0.7, dotGap: 4 } },
  { words: 'misregistered, out of register, off register, misprinted', to: { spot: 1, misregister: 5 } },
  { words: 'in register, well registered, clean print', to: { misregister: 0.3 } },
  { words: 'grainy, grain, speckled, gritty, textured paper', to: { grain: 0.8 } },
  { words: 'smooth, clean, polished, slick', to: { grain: 0, wobble: 0, tooth: 0 } },
  { words: 'rough, raw, coarse, rustic', to: { wobble: 0.8, grain: 0.5, outlineRag: 0.7 } },
  { words: 'ragged, torn, torn edges, deckled, uneven edges', to: { wobble: 1, outlineRag: 0.9 } },
  { words: 'crisp, sharp, sharp-edged, hard-edged, clean edges', to: { wobble: 0, outlineRag: 0, washBleed: 0.1 } },
  { words: 'wobbly, hand-drawn, handmade, hand-cut, naive', to: { wobble: 0.7, outlineRag: 0.5 } },
  { words: 'soft, soft-edged, gentle', to: { smooth: 3, outline: 0.1 }, contrast: 0.75 },
  { words: 'blurred, hazy, misty, foggy, diffuse', to: { smooth: 5, outline: 0, edgeKeep: 0 }, contrast: 0.6, chroma: 0.8 },
  { words: 'worked ground, busy ground, filled ground, textured ground', to: { groundWork: 0.9 } },
  { words: 'bare ground, empty ground, white space, plain ground, uncluttered', to: { groundWork: 0 } },
  { words: 'fine, close, tight', to: { hatchGap: 3.2, carveGap: 4, brushSize: 2.6, dotGap: 4 } },
  { words: 'open, wide-set, loose', to: { hatchGap: 8, carveGap: 9, dotGap: 8 } },
  { words: 'horizontal, level', to: { hatchAngle: 0, hatchFollow: 0.1, swirl: 0 } },
  { words: 'upright, vertical', to: { hatchAngle: 1.5708, hatchFollow: 0.1, swirl: 0 } },
  { words: 'slanted, diagonal, slanting', to: { hatchAngle: 0.785, hatchFollow: 0.15, swirl: 0.1 } },
  { words: 'form-following, modelled, rounded, sculpted', to: { hatchFollow: 0.95, swirl: 0.6 } },
  { words: 'high key, light, airy, bright, pale light', key: 0.14 },
  { words: 'low key, dark, moody, sombre, brooding, nocturnal', key: -0.2 },
  { words: 'high contrast, contrasty, stark, dramatic, punchy', contrast: 1.45 },
  { words: 'low contrast, flat light, even light, subdued light', contrast: 0.6 },
  { words: 'sunlit, sunny, glowing, radiant', key: 0.08, warmth: 0.02, chroma: 1.15 },
  { words: 'muted, subdued, quiet, dusty, dulled, toned down, restrained', chroma: 0.55 },
  { words: 'vivid, saturated, bright colours, intense, strong colour, brilliant', chroma: 1.4 },
  { words: 'pale, faded, washed out, bleached, sun-bleached', chroma: 0.6, lightness: 0.09 },
  { words: 'deep, rich, jewel-like, full-bodied', chroma: 1.15, lightness: -0.08 },
  { words: 'earthy, earth colours, ochre, clay', chroma: 0.75, warmth: 0.035 },
  { words: 'warm, toasted, amber', warmth: 0.035 },
  { words: 'cool, icy, wintry, cold', warmth: -0.04 },
  { words: 'monochrome, single colour, one colour, one-colour', colours: 2, chroma: 0.9 },
  { words: 'black and white, greyscale, grayscale, grey, colourless', chroma: 0 },
  { words: 'sepia, brown-toned, tea-stained', chroma: 0.25, warmth: 0.04 },
  { words: 'two-colour, two colour, duotone, two inks, two-ink', colours: 3 },
  { words: 'few colours, limited palette, limited colours, three-colour', colours: 4 },
  { words: 'many colours, multicoloured, colourful', chroma: 1.15, to: { hueKeep: 0.95 } },
  { words: 'true to colour, natural colours, local colour', to: { hueKeep: 1, paletteAmount: 0.6 } },
  { words: 'antique, aged, old, vintage, worn', to: { grain: 0.5, wobble: 0.4 }, chroma: 0.7, warmth: 0.025, contrast: 0.85 },
  { words: 'botanical, herbarium, specimen plate', to: { outline: 0.6, outlineWidth: 0.9, wash: 0.5, groundWork: 0 } },
  { words: 'almanac, chapbook, broadside', to: { carve: 0.8, flat: 1, grain: 0.3 }, colours: 3 },
];
