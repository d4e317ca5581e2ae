import { makeReferences } from './report/references.ts';
import sharp from 'sharp';
const refs = await makeReferences((process.argv[2] ?? 'tuning') as any);
const raw = (p: any) =>
  sharp(Buffer.from(p.data.buffer), { raw: { width: p.width, height: p.height, channels: 4 } })
    .resize(300, 300)
    .png()
    .toBuffer();
const out = [];
for (const [i, r] of refs.entries()) {
  out.push({ input: await raw(r.picture), left: (i % 6) * 304, top: Math.floor(i / 6) * 304 });
  const f = r.fingerprint;
  const x = (n: number[], d = 4) => n.map(v => v.toFixed(d)).join(' ');
  console.log(
    r.name.padEnd(15),
    'inks',
    f.colour.inks.toFixed(1),
    'edge',
    f.line.edge.toFixed(3),
    'sh',
    f.line.sharpness.toFixed(3),
    'w',
    f.line.width.toFixed(1),
    'rag',
    f.line.raggedness.toFixed(2),
    'coh',
    f.line.coherence.toFixed(2),
    'agr',
    f.line.agreement.toFixed(2),
    'flat',
    f.texture.flatness.toFixed(2),
    'soft',
    f.texture.softness.toFixed(2),
    'per',
    f.texture.period.share.toFixed(2),
    f.texture.period.length.toFixed(1),
    f.texture.period.dots.toFixed(2),
    'grain',
    f.texture.grain.toFixed(4),
    'rim',
    f.texture.rim.toFixed(2),
    'shd',
    f.texture.shadow.depth.toFixed(4),
    f.texture.shadow.angle.toFixed(1),
  );
  console.log(
    '    dark',
    x(f.line.dark),
    'light',
    x(f.line.light),
    'along',
    x(f.texture.along, 3),
    'across',
    x(f.texture.across, 3),
    'jit',
    f.texture.jitter.toFixed(3),
    'bands',
    x(f.texture.bands, 3),
    'pal',
    f.colour.palette.map(c => c.L.toFixed(2) + '/' + c.share.toFixed(2)).join(' '),
  );
}
await sharp({ create: { width: 6 * 304, height: 4 * 304, channels: 3, background: '#777' } })
  .composite(out)
  .png()
  .toFile('/tmp/refs.png');
const { measure } = await import('@zinc/core');
const { resizePicture } = await import('@zinc/core/image/resize');
const big = resizePicture(refs[9].picture, 1024, 1024);
for (let k = 0; k < 8; k++) {
  const t = performance.now();
  measure(big);
  console.log('measure', (performance.now() - t).toFixed(0));
}
