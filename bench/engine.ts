import { FACETS, measure, mix, paint, type Picture } from '@zinc/core';
import { drawSubject } from '@zinc/scenes';
import sharp from 'sharp';
import { firstReferences } from '../apps/server/src/demo/references/index.ts';
import { line, medianOf } from './kit.ts';

async function pictureOf(svg: string, side: number): Promise<{ picture: Picture; jpeg: Buffer }> {
  const jpeg = await sharp(Buffer.from(svg)).resize(side, side).jpeg({ quality: 92 }).toBuffer();
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { jpeg, picture: { width: info.width, height: info.height, data: new Uint8ClampedArray(data) } };
}

/** Measuring and painting, each against the time sharp needs to decode and resize the same JPEG to 512². */
export async function benchEngine(): Promise<void> {
  sharp.concurrency(1);
  sharp.cache(false);
  const references = firstReferences();
  const { picture, jpeg } = await pictureOf(references[4].svg, 1024);
  const baseline = await medianOf(15, () => sharp(jpeg).resize(512, 512).raw().toBuffer());
  console.log(`\nBaseline: sharp decodes a 1024² JPEG and resizes it to 512² in ${baseline.toFixed(1)} ms (one core)\n`);
  const measuring = await medianOf(5, () => measure(picture));
  line('measure 1024² ÷ baseline', measuring / baseline, `${measuring.toFixed(0)} ms`);
  const looks: [string, number][] = [
    ['block print', 0],
    ['engraving', 2],
    ['gouache', 4],
    ['wash', 6],
    ['cut paper', 8],
    ['spot print', 10],
  ];
  for (const [name, index] of looks) {
    const reference = await pictureOf(references[index].svg, 900);
    const { style } = mix([{ parts: 1, facets: [...FACETS], fingerprint: measure(reference.picture) }]);
    for (const side of [512, 1024]) {
      const scene = drawSubject('artichoke', 7, side, side);
      const time = await medianOf(3, () => paint(scene.picture, style, 1, 7, { mask: scene.mask, parts: scene.parts }));
      line(`paint ${name} at ${side}² ÷ baseline`, time / baseline, `${time.toFixed(0)} ms`);
    }
  }
  const drawing = await medianOf(3, () => drawSubject('artichoke', 7, 1024, 1024));
  line('draw a subject at 1024² ÷ baseline', drawing / baseline, `${drawing.toFixed(0)} ms`);
}
