import { makeReferences } from './report/references.ts';
import { mediaOf, inferStyle } from '@zinc/core/mix/inferStyle';
for (const set of ['tuning'] as const)
  for (const r of await makeReferences(set)) {
    const a = inferStyle(r.fingerprint).amounts;
    console.log(
      r.name.padEnd(15),
      Object.entries(mediaOf(r.fingerprint))
        .map(([k, v]) => k + ' ' + v.toFixed(2))
        .join(' '),
      'size',
      a.brushSize.toFixed(1),
      'len',
      a.brushLength.toFixed(1),
      'jit',
      a.brushJitter.toFixed(2),
      'rel',
      a.relief.toFixed(2),
      'wob',
      a.wobble.toFixed(2),
      'grain',
      a.grain.toFixed(2),
      'ow',
      a.outlineWidth.toFixed(1),
      a.outline.toFixed(2),
    );
  }
