import fs from 'fs';
import { componentsOf } from '@zinc/core/drift/components';
const rows = JSON.parse(fs.readFileSync('/tmp/tuning.json', 'utf8'));
const refs = rows.filter((r: any) => r.kind === 'ref'),
  paints = rows.filter((r: any) => r.kind === 'paint');
const facets: any = {
  colour: ['palette', 'paletteEven', 'strangers', 'missing', 'ground', 'chroma', 'hue', 'inks', 'warmth'],
  light: ['tone', 'spread', 'darkest', 'contrast', 'bimodality', 'paper'],
  line: [
    'edge',
    'sharpness',
    'dark',
    'light',
    'darkShape',
    'lightShape',
    'width',
    'raggedness',
    'coherence',
    'agreement',
    'direction',
  ],
  texture: [
    'bands',
    'bandShape',
    'chromaBands',
    'flatness',
    'softness',
    'grain',
    'rim',
    'along',
    'across',
    'run',
    'jitter',
    'shadow',
    'period',
    'dots',
    'gap',
  ],
};
const m = (a: number[]) => a.reduce((x, y) => x + y, 0) / a.length;
// pairs: paint vs ref, paint vs paint(sub)
const pairs: any[] = [];
for (const p of paints)
  for (const r of refs)
    pairs.push({ k: p.ref === r.ref ? 'own' : p.family === r.family ? 'fam' : 'oth', c: componentsOf(p.f, r.f) });
for (let i = 0; i < paints.length; i++)
  for (let j = i + 1; j < paints.length; j += 5) {
    const p = paints[i],
      q = paints[j];
    pairs.push({ k: p.ref === q.ref ? 'own' : p.family === q.family ? 'fam' : 'oth', c: componentsOf(p.f, q.f) });
  }
const out: any = {};
for (const [facet, names] of Object.entries(facets) as any) {
  const info = names.map((n: string) => {
    const own = pairs.filter(p => p.k === 'own').map(p => p.c[n]);
    const oth = pairs.filter(p => p.k !== 'own').map(p => p.c[n]);
    const noise = m(own);
    const h = (d: number) => (d * d) / (d + noise + 1e-9);
    const B = m(oth.map(h)),
      W = m(own.map(h));
    return { n, noise, B, W, r: B / W };
  });
  // weights: greedy ratio maximisation by coordinate ascent over nonneg weights of h/B
  const cand = info.filter((x: any) => x.r > 1.35 && x.B > 1e-5);
  let w = cand.map((x: any) => (x.r - 1) ** 2);
  for (let q = 0; q < 20; q++) {
    const t = w.reduce((a: number, b: number) => a + b, 0);
    w = w.map((v: number) => Math.min(v, 0.24 * t));
  }
  const best = 0;
  const tot = w.reduce((a: number, b: number) => a + b, 0);
  // normalise so that mean between =1
  console.log(facet, 'score', best.toFixed(2));
  out[facet] = cand
    .map((x: any, k: number) => [
      x.n,
      +x.noise.toPrecision(3),
      +(w[k] / tot / x.B).toPrecision(3),
      +(w[k] / tot).toFixed(3),
      +x.r.toFixed(2),
    ])
    .filter((x: any) => x[3] > 0.005);
  for (const o of out[facet]) console.log('   ', o.join(' '));
  console.log(
    '    dropped',
    info
      .filter((x: any) => !cand.includes(x))
      .map((x: any) => x.n + ' ' + x.r.toFixed(2))
      .join(', '),
  );
}
let s = 'export const SCALES: Record<Facet, readonly Scale[]> = {\n';
for (const [f, l] of Object.entries(out) as any)
  s += `  ${f}: [\n${l.map((x: any) => `    ['${x[0]}', ${x[1]}, ${x[2]}],`).join('\n')}\n  ],\n`;
s += '};\n';
const file = 'packages/core/src/drift/scales.ts';
const t = fs.readFileSync(file, 'utf8');
fs.writeFileSync(file, t.slice(0, t.indexOf('export const SCALES')) + s);
