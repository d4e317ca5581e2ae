import fs from 'fs';
import { drift, FACETS } from '@zinc/core';
const rows = JSON.parse(fs.readFileSync(process.argv[2], 'utf8'));
const refs = rows.filter((r: any) => r.kind === 'ref'),
  paints = rows.filter((r: any) => r.kind === 'paint'),
  contents = rows.filter((r: any) => r.kind === 'content');
let hit = 0,
  fam = 0;
const miss: string[] = [];
for (const p of paints) {
  const best = refs.map((r: any) => [drift(p.f, r.f).total, r] as const).sort((a: any, b: any) => a[0] - b[0])[0][1];
  if (best.ref === p.ref) hit++;
  else miss.push(`${p.ref}/${p.content}->${best.ref}`);
  if (best.family === p.family) fam++;
}
console.log('nearest own', hit, '/', paints.length, 'family', fam);
const count: any = {};
miss.forEach(x => {
  const k = x.replace(/\/.*->/, ' -> ');
  count[k] = (count[k] || 0) + 1;
});
console.log(
  Object.entries(count)
    .sort((a: any, b: any) => b[1] - a[1])
    .slice(0, 14)
    .map(x => x.join(' x'))
    .join('\n'),
);
for (const kind of ['subject', 'photo', null]) {
  const ps = paints.filter((p: any) => !kind || p.ckind === kind);
  for (const f of ['total', ...FACETS] as any[]) {
    let b = 0,
      w = 0,
      nb = 0,
      nw = 0,
      ff = 0,
      nf = 0;
    for (let i = 0; i < ps.length; i++)
      for (let j = i + 1; j < ps.length; j++) {
        const d = drift(ps[i].f, ps[j].f)[f as 'total'];
        if (ps[i].ref === ps[j].ref) {
          w += d;
          nw++;
        } else if (ps[i].family === ps[j].family) {
          ff += d;
          nf++;
        } else {
          b += d;
          nb++;
        }
      }
    process.stdout.write(
      `${kind ?? 'all'} ${f}: within ${(w / nw).toFixed(3)} family ${(ff / nf).toFixed(3)} other ${(b / nb).toFixed(3)} ratio ${(b / nb / (w / nw)).toFixed(2)} | `,
    );
  }
  console.log();
}
const fall: any = {};
for (const f of [...FACETS, 'total'] as any[]) {
  let ok = 0;
  const bad: any = {};
  for (const p of paints) {
    const c = contents.find((c: any) => c.content === p.content).f;
    const r = refs.find((r: any) => r.ref === p.ref).f;
    if (drift(p.f, r)[f as 'total'] < drift(c, r)[f as 'total']) ok++;
    else bad[p.ref + '/' + p.content] = 1;
  }
  console.log('falls', f, ok, '/', paints.length, Object.keys(bad).slice(0, 40).join(', '));
}
