import fs from 'fs';
const rows = JSON.parse(fs.readFileSync(process.argv[2] ?? '/tmp/tuning.json', 'utf8'));
const get: Record<string, (f: any) => number> = {
  inks: f => f.colour.inks,
  chr: f => f.colour.chroma[6],
  tone: f => f.light.tone[8],
  sp1: f => f.light.spread[1],
  sp4: f => f.light.spread[4],
  ctr: f => f.light.contrast,
  bim: f => f.light.bimodality,
  edge: f => f.line.edge,
  shp: f => f.line.sharpness,
  dk: f => f.line.dark.slice(0, 3).reduce((a: number, b: number) => a + b) * 100,
  dk2: f => f.line.dark.slice(3).reduce((a: number, b: number) => a + b) * 100,
  lt: f => f.line.light.slice(0, 3).reduce((a: number, b: number) => a + b) * 100,
  lt2: f => f.line.light.slice(3).reduce((a: number, b: number) => a + b) * 100,
  rag: f => f.line.raggedness,
  coh: f => f.line.coherence,
  agr: f => f.line.agreement,
  b0: f => f.texture.bands[0],
  b1: f => f.texture.bands[1],
  b3: f => f.texture.bands[3],
  b5: f => f.texture.bands[5],
  cb0: f => f.texture.chromaBands[0],
  flat: f => f.texture.flatness,
  soft: f => f.texture.softness,
  rim: f => f.texture.rim,
  al0: f => f.texture.along[0],
  al3: f => f.texture.along[3],
  ac0: f => f.texture.across[0],
  ac3: f => f.texture.across[3],
  jit: f => f.texture.jitter,
  shd: f => f.texture.shadow.depth * 100,
  per: f => f.texture.period.share,
  dots: f => f.texture.period.dots,
  len: f => f.texture.period.length,
};
const fams = [...new Set(rows.filter((r: any) => r.family).map((r: any) => r.family))] as string[];
const m = (a: number[]) => (a.length ? a.reduce((x, y) => x + y, 0) / a.length : NaN);
console.log(
  ''.padEnd(14) +
    Object.keys(get)
      .map(k => k.padStart(6))
      .join(''),
);
for (const fam of fams)
  for (const [kind, sel] of [
    ['ref', (r: any) => r.kind === 'ref'],
    ['subj', (r: any) => r.ckind === 'subject'],
    ['photo', (r: any) => r.ckind === 'photo'],
  ] as const) {
    const rs = rows.filter((r: any) => r.family === fam && sel(r));
    console.log(
      (fam.slice(0, 8) + ' ' + kind).padEnd(14) +
        Object.values(get)
          .map(g =>
            m(rs.map((r: any) => g(r.f)))
              .toFixed(3)
              .padStart(6),
          )
          .join(''),
    );
  }
