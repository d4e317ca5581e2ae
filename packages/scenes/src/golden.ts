import { hashPixels, labOfHex, neutralStyle, paint, type Style, type StyleAmounts } from '@zinc/core';
import { drawSubject } from './draw.ts';

const PALETTE = [
  { hex: '#23262b', share: 0.15 },
  { hex: '#8e2a4b', share: 0.2 },
  { hex: '#5f7f6b', share: 0.2 },
  { hex: '#f3eee2', share: 0.45 },
].map(c => ({ ...labOfHex(c.hex), share: c.share }));
const TONE = Array.from({ length: 17 }, (_, i) => 0.2 + (0.75 * i) / 16);

function style(amounts: Partial<StyleAmounts>, own = false): Style {
  const base = neutralStyle();
  return { palette: own ? [] : PALETTE, tone: TONE, amounts: { ...base.amounts, toneAmount: 0.4, ...amounts } };
}

const STYLES: Record<string, Style> = {
  flat: style({ flat: 1, smooth: 3, edgeKeep: 0.8, outline: 0.4 }),
  carved: style({ flat: 1, smooth: 3, carve: 0.9, lightLines: 0.9, outline: 0.3, outlineRag: 0.4 }),
  hatched: style({ hatch: 1, hatchGap: 4, outline: 0.9, cross: 0.6, grain: 0.4 }),
  washed: style({ wash: 0.9, washEdge: 0.6, smooth: 3, flat: 0.4 }, true),
};

/** A dozen small paintings whose pixels must be the same in every engine; golden.json keeps their hashes. */
export const GOLDEN_PAINTINGS = ['artichoke', 'honeybee', 'mark'].flatMap(subject =>
  Object.keys(STYLES).map(name => ({
    name: `${subject}, ${name}`,
    paint: (): string => {
      const { picture, mask, parts } = drawSubject(subject, 5, 96, 96);
      return hashPixels(paint(picture, STYLES[name], 0.9, 1907, { mask, parts }));
    },
  })),
);
