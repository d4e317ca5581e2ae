import { drawSubject } from '@zinc/scenes';
import { mix, paint, drift, measure, FACETS } from '@zinc/core';
import { makeReferences } from './report/references.ts';
import sharp from 'sharp';
const S = Number(process.argv[2] ?? 512),
  want = (process.argv[3] ?? '').split(',').filter(Boolean),
  cols = (process.argv[4] ?? 'radish,greenhouse,artichoke,honeybee,mark').split(',');
const set = (process.argv[5] ?? 'tuning') as any;
const cell = Number(process.argv[6] ?? 300);
const refs = (await makeReferences(set)).filter(r =>
  want.length === 0 ? r.name.endsWith('1') : want.some(w => r.name.startsWith(w)),
);
const raw = (p: any) =>
  sharp(Buffer.from(p.data.buffer), { raw: { width: p.width, height: p.height, channels: 4 } })
    .resize(cell, cell)
    .png()
    .toBuffer();
const out: any[] = [];
for (const [c, name] of cols.entries()) {
  const seed = { radish: 11, greenhouse: 4, artichoke: 7, honeybee: 3, mark: 1 }[name] ?? 2;
  out.push({
    input: await raw(drawSubject(name, seed, S, S).picture),
    left: (c + 1) * (cell + 4),
    top: refs.length * (cell + 4),
  });
}
for (const [r, ref] of refs.entries()) {
  out.push({ input: await raw(ref.picture), left: 0, top: r * (cell + 4) });
  const { style, target } = mix([{ parts: 1, facets: [...FACETS], fingerprint: ref.fingerprint }]);
  for (const [c, name] of cols.entries()) {
    const seed = { radish: 11, greenhouse: 4, artichoke: 7, honeybee: 3, mark: 1 }[name] ?? 2;
    const sc = drawSubject(name, seed, S, S);
    const t = performance.now();
    const im = paint(sc.picture, style, 1, 5, { mask: sc.mask, parts: sc.parts });
    const tp = performance.now() - t;
    const d = drift(measure(im), target!),
      d0 = drift(measure(sc.picture), target!);
    console.log(
      ref.name.padEnd(14),
      name.padEnd(12),
      (tp | 0) + ' ms',
      d0.total.toFixed(2),
      '->',
      d.total.toFixed(2),
      FACETS.map(f => f + ' ' + d0[f].toFixed(2) + '->' + d[f].toFixed(2)).join('  '),
    );
    out.push({ input: await raw(im), left: (c + 1) * (cell + 4), top: r * (cell + 4) });
  }
}
await sharp({
  create: { width: (cols.length + 1) * (cell + 4), height: (refs.length + 1) * (cell + 4), channels: 3, background: '#777' },
})
  .composite(out)
  .png()
  .toFile('/tmp/sheet.png');
