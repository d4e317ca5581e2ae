import type { LookSource, Reference } from '@zinc/contract';
import {
  draftWords,
  drift,
  FACETS,
  hexOfLab,
  labDistance2,
  wordConflicts,
  type Facet,
  type Fingerprint,
  type Lab,
  type MixedLook,
} from '@zinc/core';
import { rightsOf } from '../shelf/find-references';
import type { Draft } from './draft';

/** Something about a mix that should be seen, with the one change that mends it. */
export interface Warning {
  text: string;
  mend?: { label: string; to?: Draft; link?: string[] };
}

export interface MixFacts {
  draft: Draft;
  mixture: MixedLook | null;
  fingerprintOf: (s: LookSource) => Fingerprint | undefined;
  referenceOf: (s: LookSource) => Reference | null;
  never: readonly (Lab & { radius: number })[];
  /** Strength (0–1) up to which the subject holds; null while it is not known. */
  holds: number | null;
  /** Colours of sources that turned up though those sources do not give colour: share of the picture, by the id of the source. */
  leaks: readonly { id: string; name: string; share: number }[];
  hasBrand: boolean;
  today: string;
}

/** Facet distance from which two sources are told to cancel each other, when their mixture is this far from both. */
const APART = 1.1;
const LOST = 0.4;
/** Share of bare ground from which a reference is mostly background. */
const MOSTLY_BARE = 0.55;
const LEAK = 0.02;

/** Everything that should be seen before this mix is used. */
export function warningsOf(facts: MixFacts): Warning[] {
  const { draft } = facts;
  return draft.sources.length === 0
    ? []
    : [
        ...ofRights(facts),
        ...ofSources(facts),
        ...ofWords(facts),
        ...ofPairs(facts),
        ...ofColours(facts),
        ...ofStrength(facts),
        ...ofFacets(facts),
      ];
}

function withSource(draft: Draft, s: LookSource, change: Partial<LookSource> | null): Draft {
  return { ...draft, sources: draft.sources.flatMap(x => (x !== s ? [x] : change ? [{ ...x, ...change }] : [])) };
}

function ofRights({ draft, referenceOf, today }: MixFacts): Warning[] {
  return draft.sources.flatMap(s => {
    const r = referenceOf(s);
    const rights = r ? rightsOf(r, today) : null;
    if (!r || (rights !== 'ended' && rights !== 'soon')) return [];
    const link = ['/shelf', r.id];
    return rights === 'ended'
      ? [
          {
            text: `The licence of ${s.name} has ended. Preflight stops new runs with it unless a lead says why.`,
            mend: { label: 'See its rights', link },
          },
        ]
      : [{ text: `The licence of ${s.name} ends soon, on ${r.licenceEnds}.`, mend: { label: 'See its rights', link } }];
  });
}

function ofSources({ draft, fingerprintOf, referenceOf }: MixFacts): Warning[] {
  const out: Warning[] = [];
  for (const s of draft.sources) {
    if (s.parts === 0) continue;
    if (s.kind !== 'wordStyle' && s.facets.length === 0 && !s.framing)
      out.push({
        text: `${s.name} gives no facet, so its parts change nothing.`,
        mend: { label: 'Take it out', to: withSource(draft, s, null) },
      });
    const f = s.kind === 'reference' ? fingerprintOf(s) : undefined;
    const r = referenceOf(s);
    if (f && r && f.light.bare > MOSTLY_BARE && s.facets.includes('light'))
      out.push({
        text: `${Math.round(f.light.bare * 100)} % of ${s.name} is bare background, which counts as part of its look.`,
        mend: { label: 'Crop or cut it out', link: ['/shelf', r.id, 'prepare'] },
      });
  }
  return out;
}

function ofWords({ draft, fingerprintOf }: MixFacts): Warning[] {
  const measured = draft.sources.filter(s => s.parts > 0 && fingerprintOf(s));
  const drafts = measured.map(s => ({ draft: draftWords(fingerprintOf(s)!), facets: s.facets as Facet[] }));
  return wordConflicts(draft.words, drafts).map(c => {
    const to = { ...draft, words: draft.words.filter(w => w !== c.word) };
    const name = measured[c.source].name;
    return {
      text:
        c.kind === 'repeats'
          ? `“${c.word}” says what ${name} already gives.`
          : `“${c.word}” fights ${name}, whose ${c.facet} is measured as ${c.measured}.`,
      mend: { label: 'Drop the word', to },
    };
  });
}

/** Two sources that share a facet so unlike that what comes of it is neither. */
function ofPairs({ draft, mixture, fingerprintOf }: MixFacts): Warning[] {
  if (!mixture?.target) return [];
  const out: Warning[] = [];
  const givers = draft.sources.filter(s => s.parts > 0 && fingerprintOf(s));
  for (const facet of FACETS)
    for (const [i, p] of givers.entries())
      for (const q of givers.slice(i + 1)) {
        if (!p.facets.includes(facet) || !q.facets.includes(facet)) continue;
        const [fp, fq] = [fingerprintOf(p)!, fingerprintOf(q)!];
        if (drift(fp, fq)[facet] < APART) continue;
        if (Math.min(drift(fp, mixture.target)[facet], drift(fq, mixture.target)[facet]) < LOST) continue;
        const [more, less] = p.parts >= q.parts ? [p, q] : [q, p];
        out.push({
          text: `${p.name} and ${q.name} cancel each other in ${facet}: what comes of it is like neither.`,
          mend: {
            label: `Only ${more.name} gives ${facet}`,
            to: withSource(draft, less, { facets: less.facets.filter(f => f !== facet) }),
          },
        });
      }
  return out;
}

function ofColours({ draft, mixture, never, leaks, hasBrand }: MixFacts): Warning[] {
  const out: Warning[] = [];
  for (const c of mixture?.style.palette ?? []) {
    const bad = never.find(n => labDistance2(n, c) < n.radius * n.radius);
    if (!bad) continue;
    const brandOnly: Draft = {
      ...draft,
      sources: draft.sources.map(s =>
        s.kind === 'palette' && !s.colours ? s : { ...s, facets: s.facets.filter(f => f !== 'colour') },
      ),
    };
    const given = draft.sources.some(s => s.kind === 'palette' && !s.colours && s.parts > 0);
    out.push({
      text: `${hexOfLab(c)} is a colour the brand never shows; the painter keeps it out and takes the next one.`,
      mend: hasBrand && given ? { label: 'Let only the brand give colour', to: brandOnly } : undefined,
    });
  }
  for (const l of leaks)
    if (l.share > LEAK)
      out.push({
        text: `Colours of ${l.name} cover ${Math.round(l.share * 100)} % of the painting, though it gives no colour.`,
        mend:
          hasBrand && !draft.sources.some(s => s.kind === 'palette')
            ? { label: 'Add the brand palette', to: withBrand(draft) }
            : undefined,
      });
  return out;
}

function withBrand(draft: Draft): Draft {
  const brand: LookSource = { kind: 'palette', id: 'brand', name: 'Brand palette', sha256: null, parts: 4, facets: ['colour'] };
  return { ...draft, sources: [...draft.sources, brand] };
}

function ofStrength({ draft, holds }: MixFacts): Warning[] {
  if (holds === null) return [];
  const most = Math.floor(holds * 100);
  if (draft.strength <= most || most === 0) return [];
  return [
    {
      text: `At ${draft.strength} % the subject drowns; on the yardstick it holds up to ${most} %.`,
      mend: { label: `Lower it to ${most} %`, to: { ...draft, strength: most } },
    },
  ];
}

function ofFacets({ draft }: MixFacts): Warning[] {
  if (draft.sources.every(s => s.kind === 'wordStyle')) return [];
  return FACETS.filter(f => !draft.sources.some(s => s.parts > 0 && s.kind !== 'wordStyle' && s.facets.includes(f))).map(f => ({
    text: `No source gives ${f}, so subjects keep their own.`,
  }));
}
