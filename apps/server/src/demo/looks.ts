import type { LookVersionInput } from '@zinc/contract';
import { FACETS, type Facet } from '@zinc/core';

/** A source of a demo look: the name of a reference, or the brand's palette, with its parts, the facets it gives, and whether its framing is taken. */
type DemoSource = readonly [name: string, parts: number, facets?: readonly Facet[], framing?: true];
export interface DemoLook {
  name: string;
  versions: (Omit<LookVersionInput, 'sources'> & { sources: readonly DemoSource[] })[];
}

export const BRAND = 'Brand palette';
const MANNER: readonly Facet[] = ['light', 'line', 'texture'];
const brand: DemoSource = [BRAND, 1, ['colour']];

function version(note: string, strength: number, sources: readonly DemoSource[], words: string[] = [], avoid: string[] = []) {
  return { note, strength, sources, words, avoid };
}

/** The looks that the demo house starts with. */
export const FIRST_LOOKS: readonly DemoLook[] = [
  {
    name: 'Block & Brine',
    versions: [
      version(
        'The block print of the archive in our own four colours.',
        92,
        [['Furrow block', 3, MANNER], ['Hedge block', 1, ['line', 'texture']], brand],
        ['block print'],
        ['shading'],
      ),
    ],
  },
  {
    name: 'Almanac Wash',
    versions: [
      version(
        'From the two dye tests.',
        85,
        [
          ['Dye test 4', 2],
          ['Dye test 9', 1],
        ],
        ['washes'],
        ['outline'],
      ),
    ],
  },
  {
    name: 'Graver',
    versions: [
      version(
        'Fine parallel lines that follow the form.',
        95,
        [['Seed scales', 2, MANNER], ['Two bulbs', 1, ['line']], brand],
        ['fine lines'],
      ),
    ],
  },
];

/** The others, oldest first; a look with several versions says what each changed. */
export const MORE_LOOKS: readonly DemoLook[] = [
  {
    name: 'Paper Frost',
    versions: [
      version(
        'Cut paper in flat winter light.',
        88,
        [
          ['Frost window', 2],
          ['Winter window', 1, ['line', 'texture']],
        ],
        ['cut paper'],
      ),
      version(
        'The brand gives the colours now.',
        90,
        [['Frost window', 2, MANNER], ['Acorn frieze', 1, ['texture']], brand],
        ['cut paper'],
      ),
    ],
  },
  {
    name: 'Packing Crate',
    versions: [
      version(
        'As the crates were printed.',
        92,
        [
          ['Barrow stencil', 2],
          ['Cider crate', 1],
        ],
        ['misregistered'],
      ),
      version('Our own inks; a little cleaner.', 88, [['Barrow stencil', 2, MANNER], ['Beet crate', 2], brand], ['spot print']),
    ],
  },
  {
    name: 'Hothouse',
    versions: [
      version(
        'Thick paint, saturated.',
        84,
        [
          ['Tomato bench', 2],
          ['Marigold bench', 1],
        ],
        ['thick paint', 'vivid'],
      ),
    ],
  },
  {
    name: 'Slate Morning',
    versions: [
      version(
        'Chalk on slate, for the market boards.',
        80,
        [
          ['Squash on slate', 2],
          ['Cold morning sticks', 1],
        ],
        ['chalky'],
      ),
    ],
  },
  {
    name: 'Ledger Line',
    versions: [
      version(
        'The vignettes of the old ledger.',
        94,
        [
          ['Ledger vignette', 3],
          ['Garlic plate', 1, ['line']],
        ],
        ['fine lines'],
      ),
    ],
  },
  {
    name: 'Quay Cloth',
    versions: [
      version(
        'Gouache of the quay, quiet.',
        82,
        [
          ['Quay cloth', 3],
          ['Dusk study', 1, ['colour']],
        ],
        ['muted'],
      ),
    ],
  },
  {
    name: 'Beet Crate, brand inks',
    versions: [version('Two inks and their overprint.', 90, [['Beet crate', 3, MANNER], brand], ['two-colour'])],
  },
  {
    name: 'Night Heron',
    versions: [
      version(
        'Dark block for the winter talks.',
        90,
        [
          ['Night heron block', 2],
          ['Well rope block', 1, ['line']],
        ],
        ['high contrast'],
      ),
    ],
  },
  {
    name: 'Pond',
    versions: [
      version(
        'Loose washes, wet.',
        78,
        [
          ['Pond study', 2],
          ['Rain gauge sheet', 1],
        ],
        ['wet'],
        ['outline'],
      ),
    ],
  },
  {
    name: 'Harvest Mobile',
    versions: [
      version(
        'Paper with real shadows.',
        88,
        [
          ['Harvest mobile', 2],
          ['Greenhouse mobile', 1],
        ],
        ['layered'],
      ),
    ],
  },
  {
    name: 'Allotment Sticks',
    versions: [
      version('Soft sticks, warm ground.', 80, [
        ['Allotment sticks', 2],
        ['Hedge sticks', 1, ['texture', 'line']],
      ]),
    ],
  },
  {
    name: 'Fair Day',
    versions: [
      version(
        'Gouache with the colours of the fair, mounted as the cloth came.',
        86,
        [
          ['Fair cloth', 2, FACETS, true],
          ['Sunday cloth', 1, ['texture']],
        ],
        ['broad strokes'],
      ),
    ],
  },
  {
    name: 'Barn Door',
    versions: [
      version(
        'Heavy block, one dark.',
        93,
        [
          ['Barn door block', 3],
          ['Loft window block', 1],
        ],
        ['block print', 'few colours'],
      ),
    ],
  },
  {
    name: 'Kale at Noon',
    versions: [
      version(
        'Thick greens.',
        82,
        [
          ['Kale at noon', 3],
          ['Sea kale', 1, ['texture']],
        ],
        ['thick paint'],
      ),
    ],
  },
  {
    name: 'Sprout Notes',
    versions: [
      version(
        'Pale washes for thumbnails.',
        76,
        [
          ['Sprout study', 2],
          ['Dye test 12', 1, ['light', 'texture']],
        ],
        ['pale'],
      ),
    ],
  },
];

/** The inputs of a demo look, its sources found by name among those that are kept. */
export function inputsOf(look: DemoLook, kept: ReadonlyMap<string, { id: string; sha256: string }>): LookVersionInput[] {
  return look.versions.map(v => ({
    ...v,
    sources: v.sources.map(([name, parts, facets = FACETS, framing]) =>
      name === BRAND
        ? { kind: 'palette' as const, id: 'brand', name, sha256: null, parts, facets: [...facets] }
        : { kind: 'reference' as const, ...kept.get(name)!, name, parts, facets: [...facets], framing },
    ),
  }));
}
