import { measure } from '@zinc/core';
import { resizePicture } from '@zinc/core/image/resize';
import { pixelsOf } from './report/references.ts';
import { demoReferences } from '../apps/server/src/demo/references/index.ts';
import sharp from 'sharp';
const p = await pixelsOf(demoReferences()[4].svg);
const big = resizePicture(p, 1024, 1024);
sharp.concurrency(1);
sharp.cache(false);
const jpeg = await sharp(Buffer.from(demoReferences()[4].svg)).resize(1024, 1024).jpeg({ quality: 92 }).toBuffer();
for (let k = 0; k < 30; k++) {
  const t = performance.now();
  measure(big);
  if (k > 24) console.log((performance.now() - t).toFixed(0));
}
for (let k = 0; k < 10; k++) {
  const t = performance.now();
  await sharp(jpeg).resize(512, 512).raw().toBuffer();
  if (k > 4) console.log('sharp', (performance.now() - t).toFixed(1));
}
