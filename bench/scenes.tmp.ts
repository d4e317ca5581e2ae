import { SUBJECTS, drawSubject } from '@zinc/scenes';
import sharp from 'sharp';
const seeds = (process.argv[2] ?? '1').split(',').map(Number),
  S = Number(process.argv[3] ?? 300);
const want = process.argv[4]?.split(',');
const subs = SUBJECTS.filter(s => !want || want.includes(s.name));
const cols = Number(process.argv[5] ?? 8);
const out = [];
let k = 0;
for (const s of subs)
  for (const seed of seeds) {
    const p = drawSubject(s.name, seed, S, S).picture;
    out.push({
      input: await sharp(Buffer.from(p.data.buffer), { raw: { width: S, height: S, channels: 4 } })
        .png()
        .toBuffer(),
      left: (k % cols) * (S + 4),
      top: Math.floor(k / cols) * (S + 4),
    });
    k++;
  }
await sharp({ create: { width: cols * (S + 4), height: Math.ceil(k / cols) * (S + 4), channels: 3, background: '#777' } })
  .composite(out)
  .png()
  .toFile('/tmp/scenes.png');
