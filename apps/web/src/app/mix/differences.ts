import type { LookSource } from '@zinc/contract';
import type { Draft } from './draft';

/** One setting that differs between two states of a look. */
export interface Difference {
  what: string;
  one: string;
  other: string;
}

function told(s: LookSource | undefined, total: number): string {
  if (!s) return 'not in it';
  if (s.parts === 0) return 'no part';
  const share = total > 0 ? `, ${Math.round((100 * s.parts) / total)} %` : '';
  const parts = s.parts === 1 ? '1 part' : `${s.parts} parts`;
  if (s.kind === 'wordStyle') return `${parts}${share}`;
  return `${parts}${share}, gives ${[...s.facets, ...(s.framing ? ['framing'] : [])].join(', ') || 'nothing'}`;
}

/** Every setting in which two states of a look differ, in the order of the bench. */
export function differencesOf(one: Draft, other: Draft): Difference[] {
  const out: Difference[] = [];
  const sum = (d: Draft): number => d.sources.reduce((s, x) => s + x.parts, 0);
  const ids = [...new Set([...one.sources, ...other.sources].map(s => s.id))];
  for (const id of ids) {
    const [p, q] = [one, other].map(d => d.sources.find(s => s.id === id));
    const [said, meant] = [told(p, sum(one)), told(q, sum(other))];
    const name = (p ?? q)!.name;
    if (said !== meant) out.push({ what: name, one: said, other: meant });
    else if (p && q && p.sha256 !== q.sha256) out.push({ what: name, one: 'one picture', other: 'another picture' });
    else if (p && q && JSON.stringify([p.colours, p.phrases]) !== JSON.stringify([q.colours, q.phrases]))
      out.push({ what: name, one: contentOf(p), other: contentOf(q) });
  }
  if (one.strength !== other.strength) out.push({ what: 'Strength', one: `${one.strength} %`, other: `${other.strength} %` });
  for (const [what, key] of [
    ['Style words', 'words'],
    ['Avoid', 'avoid'],
  ] as const) {
    const [p, q] = [one[key].join(', ') || 'none', other[key].join(', ') || 'none'];
    if (p !== q) out.push({ what, one: p, other: q });
  }
  return out;
}

function contentOf({ colours, phrases }: LookSource): string {
  return colours?.join(' ') ?? [...(phrases?.before ?? []), ...(phrases?.after ?? [])].join(', ');
}
