import { measure, type Fingerprint, type Picture } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import sharp from 'sharp';
import {
  blockPrint,
  cutPaper,
  engraving,
  gouache,
  impasto,
  pastel,
  spotPrint,
  wash,
} from '../../apps/server/src/demo/references/kinds.ts';

/** A made-up reference of the report, with the family it was made in. */
export interface Reference {
  name: string;
  family: string;
  picture: Picture;
  fingerprint: Fingerprint;
}

type Maker = (random: () => number, palette: readonly string[], variant: number) => string;

const FAMILIES: Record<string, Maker> = {
  'block print': (r, p, v) => blockPrint(r, p[0], p[5], 30 + v),
  engraving: (r, p, v) => engraving(r, p[0], p[5], 7 + v * 2),
  gouache: (r, p, v) => gouache(r, p, 40 + v),
  wash: (r, p, v) => wash(r, p[0], p.slice(1, 5), 50 + v),
  'cut paper': (r, p) => cutPaper(r, p),
  'spot print': (r, p, v) => spotPrint(r, p[0], p.slice(1, 4), 60 + v),
  pastel: (r, p, v) => pastel(r, p[0], p.slice(1), 70 + v),
  'thick paint': (r, p, v) => impasto(r, p, 80 + v),
};

/** Ground, four colours and a dark, three palettes a set; those judged on share no colour with those tuned on. */
const PALETTES = {
  tuning: [
    ['#f4ead6', '#d1663f', '#3f7a6b', '#e6b450', '#7c94b8', '#27304a'],
    ['#eef0e9', '#8e2a4b', '#5f7f6b', '#d8c48e', '#a3b7c9', '#23262b'],
    ['#f7efe0', '#4667a8', '#e08a8a', '#8fae5d', '#c9a46b', '#3a2a22'],
  ],
  judging: [
    ['#f2e7cf', '#b8452e', '#2f6d80', '#e9c15a', '#9bb58c', '#1f3328'],
    ['#f1eee6', '#6b4c8a', '#c78a3c', '#78a39a', '#d9a7a0', '#2b2320'],
    ['#ece9dd', '#36604a', '#d7743f', '#c5b07a', '#7f9fb5', '#3b1f2e'],
  ],
};

export async function pixelsOf(svg: string): Promise<Picture> {
  const { data, info } = await sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}

/** The references of one set: every family in three palettes. Tuning and judging sets share no seed and no colour. */
export async function makeReferences(set: keyof typeof PALETTES): Promise<Reference[]> {
  const out: Reference[] = [];
  for (const [family, make] of Object.entries(FAMILIES))
    for (const [variant, palette] of PALETTES[set].entries()) {
      const random = randomFor(1000 + variant, `${set} ${family}`);
      const picture = await pixelsOf(make(random, palette, set === 'tuning' ? variant : variant + 0.5));
      out.push({ name: `${family} ${variant + 1}`, family, picture, fingerprint: measure(picture) });
    }
  return out;
}
