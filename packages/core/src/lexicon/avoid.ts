import type { Style, StyleField } from '../mix/style.ts';

/** Colours that a word keeps out: balls around these, in OKLab. */
const RADIUS = 0.085;
const COLOURS: Readonly<Record<string, readonly string[]>> = {
  violet: ['#6a3fb5', '#8d5fd0', '#4e2a8c', '#a583dc'],
  purple: ['#6f2f87', '#8d4aa6', '#4f1f63', '#a86cc0'],
  magenta: ['#c2298f', '#a01e75', '#d95fb0'],
  pink: ['#e58aa8', '#d66a8e', '#f0b2c4'],
  red: ['#c8202e', '#a8121f', '#e2464e'],
  orange: ['#e2701e', '#f08a3c', '#c45a12'],
  yellow: ['#f2d22e', '#e0b81c', '#f7e36a'],
  green: ['#3f8f3a', '#2f6b2c', '#63b05c', '#8cc47f'],
  turquoise: ['#1fa39a', '#3dbcb4', '#157a73'],
  blue: ['#2b5fc0', '#1f4591', '#4d83dd', '#82a8e8'],
  brown: ['#7a4a26', '#5c3516', '#96643c'],
  black: ['#0c0c0d', '#1c1c1e'],
};

/** Marks that a word keeps out, with the settings that would make them. Words that mean the same share a line. */
const MARKS: readonly { words: string; off: readonly StyleField[]; framing?: true }[] = [
  { words: 'outline, outlines, contour, contours, keyline, keylines', off: ['outline', 'lightLines'] },
  { words: 'hatching, hatch, hatched lines, parallel lines', off: ['hatch'] },
  { words: 'cross-hatching, cross hatching', off: ['cross'] },
  { words: 'gouges, gouge marks, carving, cut marks', off: ['carve'] },
  { words: 'shadow, shadows, drop shadow, drop shadows, paper shadows', off: ['shadow'] },
  { words: 'dots, halftone, halftone dots, dot screen', off: ['spot'] },
  { words: 'misregistration, misregister', off: ['misregister'] },
  { words: 'brushwork, brush strokes, brush marks, strokes', off: ['brush', 'patch'] },
  { words: 'relief, impasto, thick paint', off: ['relief'] },
  { words: 'wash, washes, pools, backruns', off: ['wash'] },
  { words: 'bleeding, bleed', off: ['washBleed'] },
  { words: 'grain, paper grain, speckle, speckles', off: ['grain'] },
  { words: 'ragged edges, rough edges, wobble', off: ['wobble', 'outlineRag'] },
  { words: 'margins, margin, border, frame', off: [], framing: true },
];
const BY_WORD = new Map(MARKS.flatMap(m => m.words.split(', ').map(w => [w, m] as const)));

const plain = (word: string): string =>
  word
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/^(no|any) /, '');

/** A style without the marks that avoid words name; the same words applied twice change nothing more. */
export function avoidMarks(style: Style, words: readonly string[]): Style {
  const marks = words.flatMap(w => BY_WORD.get(plain(w)) ?? []);
  if (marks.length === 0) return style;
  const amounts = { ...style.amounts };
  for (const { off } of marks) for (const field of off) amounts[field] = 0;
  return { ...style, amounts, framing: marks.some(m => m.framing) ? null : style.framing };
}

/** Colours that avoid words keep out, each with the OKLab radius around it that must not appear. */
export function avoidedColours(words: readonly string[]): { hex: string; radius: number }[] {
  return [...new Set(words.flatMap(w => COLOURS[plain(w)] ?? []))].map(hex => ({ hex, radius: RADIUS }));
}

/** Avoid words that name neither a colour nor a mark the painter knows: they stand in the text, and that is all. */
export function onlyInText(words: readonly string[]): string[] {
  return words.filter(w => !BY_WORD.has(plain(w)) && !COLOURS[plain(w)]);
}

/** Whether a word names a colour that can be kept out or asked for. */
export const isKnownColour = (word: string): boolean => plain(word) in COLOURS;

/** The colour that a word names first of all, as #rrggbb; null for other words. */
export const colourNamed = (word: string): string | null => COLOURS[plain(word)]?.[0] ?? null;
