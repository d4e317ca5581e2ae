import { findSubject, drawSubject } from '@zinc/scenes';
import sharp from 'sharp';
const out = [];
let k = 0;
const S = 320;
for (const t of [
  'three carrots on a table',
  'a yellow watering can in a garden bed at dawn',
  'two pumpkins by a window',
  'frosted kale in winter',
  'five radishes',
  'a greenhouse at dusk',
  'sunflower in autumn',
  'a white wren',
  'a turnip in evening light',
  'blue wheelbarrow lit from the right',
  'a leek',
  '9 snails',
]) {
  const f = findSubject(t);
  const p = drawSubject(f.subject!.name, 5, S, S, f.wishes).picture;
  console.log(t, JSON.stringify(f.wishes), f.drawnAs, f.ignored);
  out.push({
    input: await sharp(Buffer.from(p.data.buffer), { raw: { width: S, height: S, channels: 4 } })
      .png()
      .toBuffer(),
    left: (k % 6) * (S + 4),
    top: Math.floor(k / 6) * (S + 4),
  });
  k++;
}
await sharp({ create: { width: 6 * (S + 4), height: 2 * (S + 4), channels: 3, background: '#777' } })
  .composite(out)
  .png()
  .toFile('/tmp/scenes.png');
