import { photograph } from '@zinc/scenes';
import sharp from 'sharp';
const out = [];
for (const [i, n] of ['radish', 'beetroot', 'watering can', 'sunflower'].entries()) {
  const p = photograph(n, 41 + i, 512, 512);
  out.push({
    input: await sharp(Buffer.from(p.data.buffer), { raw: { width: 512, height: 512, channels: 4 } })
      .png()
      .toBuffer(),
    left: i * 512,
    top: 0,
  });
}
await sharp({ create: { width: 2048, height: 512, channels: 3, background: '#777' } })
  .composite(out)
  .png()
  .toFile('/tmp/photo.png');
