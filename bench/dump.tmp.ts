import { mix, paint, measure, FACETS } from '@zinc/core';
import { makeReferences } from './report/references.ts';
import { makeContents } from './report/contents.ts';
import fs from 'fs';
const set = (process.argv[2] ?? 'tuning') as 'tuning';
const refs = await makeReferences(set);
const contents = makeContents(set, 512);
const rows: any[] = [];
for (const c of contents) rows.push({ kind: 'content', content: c.name, ckind: c.kind, f: measure(c.picture) });
for (const r of refs) {
  rows.push({ kind: 'ref', ref: r.name, family: r.family, f: r.fingerprint });
  const { style } = mix([{ parts: 1, facets: [...FACETS], fingerprint: r.fingerprint }]);
  for (const [i, c] of contents.entries())
    rows.push({
      kind: 'paint',
      ref: r.name,
      family: r.family,
      content: c.name,
      ckind: c.kind,
      f: measure(paint(c.picture, style, 1, 100 + i, c.options)),
    });
}
fs.writeFileSync('/tmp/' + set + '.json', JSON.stringify(rows));
console.log(rows.length);
