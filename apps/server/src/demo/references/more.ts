import { randomFor } from '@zinc/core/number/random';
import type { DemoReference } from './index.ts';
import { blockPrint, cutPaper, engraving, gouache, impasto, pastel, spotPrint, wash } from './kinds.ts';
import { onMount } from './shapes.ts';

type Kind = 'block' | 'graver' | 'gouache' | 'wash' | 'paper' | 'crate' | 'pastel' | 'thick';

/** Ground, four colours and a dark. */
const PALETTES: readonly (readonly string[])[] = [
  ['#f3eee2', '#8e2a4b', '#5f7f6b', '#d8c48e', '#a9bcae', '#23262b'],
  ['#f6ead2', '#c9622f', '#3d6f63', '#e9b94e', '#7f97b3', '#2a2f45'],
  ['#eef1ec', '#3f6ea5', '#d98f86', '#93ad62', '#c7a871', '#372a24'],
  ['#f4e9dc', '#a83a32', '#2e6a78', '#e5bd62', '#9cb38b', '#1f3026'],
  ['#f0ece3', '#7a4f2a', '#c58b3d', '#7ca096', '#d7a59c', '#2a2220'],
  ['#ecead9', '#38614c', '#d67845', '#c3ae78', '#809eb3', '#3a2230'],
  ['#f8f4ea', '#2f4858', '#86a86b', '#f0c75e', '#e2836b', '#1d2b2a'],
  ['#efe6ec', '#5b6f8f', '#b5566b', '#cfa86a', '#9db9a6', '#2d2433'],
];

const KINDS: Record<Kind, { shelf: string; make: (random: () => number, p: readonly string[], seed: number) => string }> = {
  block: { shelf: 'Prints', make: (r, p, s) => blockPrint(r, p[0], p[5], s) },
  graver: { shelf: 'Prints', make: (r, p, s) => engraving(r, p[0], p[5], 7 + (s % 5)) },
  gouache: { shelf: 'Paint', make: (r, p, s) => gouache(r, p, s) },
  wash: { shelf: 'Washes', make: (r, p, s) => wash(r, p[0], p.slice(1, 5), s) },
  paper: { shelf: 'Paper and stencil', make: (r, p) => cutPaper(r, p) },
  crate: { shelf: 'Paper and stencil', make: (r, p, s) => spotPrint(r, p[0], p.slice(1, 4), s) },
  pastel: { shelf: 'Sticks and chalk', make: (r, p, s) => pastel(r, p[0], p.slice(1), s) },
  thick: { shelf: 'Paint', make: (r, p, s) => impasto(r, p, s) },
};

/** Each: kind, palette, name. Order is the order in which they came. */
const CAME: readonly (readonly [Kind, number, string])[] = [
  ['block', 1, 'Orchard ladder block'],
  ['block', 3, 'Barn door block'],
  ['block', 5, 'Frost on furrows'],
  ['block', 7, 'Night heron block'],
  ['block', 4, 'Loft window block'],
  ['block', 6, 'Well rope block'],
  ['graver', 0, 'Garlic plate'],
  ['graver', 2, 'Almanac ornament'],
  ['graver', 5, 'Seed head plate'],
  ['graver', 4, 'Ledger vignette'],
  ['graver', 7, 'Moon and onion'],
  ['gouache', 0, 'Co-operative cloth'],
  ['gouache', 2, 'Quay cloth'],
  ['gouache', 5, 'Sunday cloth'],
  ['gouache', 6, 'Picnic cloth'],
  ['gouache', 7, 'Lilac cloth'],
  ['gouache', 3, 'Fair cloth'],
  ['wash', 0, 'Dye test 12'],
  ['wash', 1, 'Dye test 15'],
  ['wash', 2, 'Rain gauge sheet'],
  ['wash', 3, 'Pond study'],
  ['wash', 4, 'Clay study'],
  ['wash', 6, 'Sprout study'],
  ['wash', 7, 'Dusk study'],
  ['paper', 0, 'Packing house frieze'],
  ['paper', 1, 'Harvest mobile'],
  ['paper', 2, 'School workshop 3'],
  ['paper', 4, 'Acorn frieze'],
  ['paper', 6, 'Greenhouse mobile'],
  ['paper', 7, 'Plum frieze'],
  ['crate', 0, 'Beet crate'],
  ['crate', 2, 'Harbour crate'],
  ['crate', 3, 'Cider crate'],
  ['crate', 5, 'Leek crate'],
  ['crate', 6, 'Lemon crate'],
  ['pastel', 0, 'Blackboard menu'],
  ['pastel', 1, 'Squash on slate'],
  ['pastel', 2, 'Cold morning sticks'],
  ['pastel', 3, 'Allotment sticks'],
  ['pastel', 5, 'Hedge sticks'],
  ['pastel', 6, 'Lemon sticks'],
  ['thick', 0, 'Hothouse study'],
  ['thick', 1, 'Pumpkin heap'],
  ['thick', 3, 'Tomato bench'],
  ['thick', 5, 'Kale at noon'],
  ['thick', 6, 'Marigold bench'],
  ['thick', 7, 'Beet evening'],
  ['thick', 2, 'Sea kale'],
];

/** Those that came mounted, by name. */
const MOUNTS: Record<string, (picture: string) => string> = {
  'Fair cloth': picture => onMount(picture, '#f8f6f0', { top: 0.08, side: 0.08, below: 0.14 }, 0.06),
  'Acorn frieze': picture => onMount(picture, '#d3c4a6', { top: 0.06, side: 0.06, below: 0.06 }, 0),
  'Dusk study': picture => onMount(picture, '#f8f6f1', { top: 0.1, side: 0.12, below: 0.16 }, 0),
};

const CREDITS = [
  'Marrow & Vane archive',
  'R. Vance',
  'T. Bielak',
  'I. Okafor-Lindqvist',
  'Found, packing house',
  'Lantern Press, loan',
];
const TAGS = ['winter', 'roots', 'labels', 'posters', 'quiet', 'loud', 'two inks', 'thumbnails', 'early talks', 'final art'];

/** The rest of the library, in eight manners and eight palettes; some graded and tagged, a few on loan. */
export function moreReferences(): DemoReference[] {
  const seen = new Map<Kind, number>();
  const turns = CAME.map(([kind]) => {
    const turn = seen.get(kind) ?? 0;
    seen.set(kind, turn + 1);
    return turn;
  });
  const made = CAME.map(([kind, palette, name], i) => {
    const random = randomFor(300 + i, 'demo reference');
    const about = randomFor(900 + i, 'about demo reference');
    const { shelf, make } = KINDS[kind];
    const credit = CREDITS[Math.floor(about() * CREDITS.length)];
    const loan = credit.includes('loan');
    return {
      name,
      shelf,
      credit,
      licence: loan ? 'loan for a season' : credit.startsWith('Found') ? 'one campaign' : 'ours',
      licenceDays: loan ? 40 + Math.floor(about() * 300) : null,
      grade: about() < 0.7 ? 3 + Math.floor(about() * 7) : null,
      tags: [...new Set(Array.from({ length: Math.floor(about() * 3) }, () => TAGS[Math.floor(about() * TAGS.length)]))],
      svg: (MOUNTS[name] ?? (p => p))(make(random, PALETTES[palette], 100 + i)),
    };
  });
  // Manners came by turns, so that things unlike each other stand side by side.
  return made
    .map((reference, i) => ({ reference, turn: turns[i] }))
    .sort((p, q) => p.turn - q.turn)
    .map(({ reference }) => reference);
}
