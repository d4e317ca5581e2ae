import { randomFor } from '@zinc/core/number/random';
import { blockPrint, cutPaper, engraving, gouache, spotPrint, wash } from './kinds.ts';

export interface DemoReference {
  name: string;
  shelf: string;
  credit: string;
  licence: string;
  /** Days from the seeding day to the end of the licence; null for no end. */
  licenceDays: number | null;
  grade?: number | null;
  tags?: string[];
  svg: string;
}

/** The twelve made-up references that the demo house starts with, each from its own fixed seed. */
export function firstReferences(): DemoReference[] {
  const seeded = (seed: number): (() => number) => randomFor(seed, 'demo reference');
  const ours = { credit: 'Marrow & Vane archive', licence: 'ours', licenceDays: null };
  const market = ['#f4e3c8', '#e07a4b', '#2f6f62', '#f2b84b', '#8db6a5', '#c24b4b', '#24445c'];
  const orchard = ['#efe7d6', '#6d7f3a', '#b5472f', '#dba63f', '#38523f', '#8a3a52', '#e9c9a0'];
  return [
    { name: 'Furrow block', shelf: 'Prints', ...ours, svg: blockPrint(seeded(11), '#efe4cc', '#17324a', 1) },
    { name: 'Hedge block', shelf: 'Prints', ...ours, svg: blockPrint(seeded(12), '#f2ead8', '#2f4a33', 2) },
    {
      name: 'Two bulbs',
      shelf: 'Prints',
      credit: 'Lantern Press, loan',
      licence: 'loan until the exhibition closes',
      licenceDays: 12,
      svg: engraving(seeded(13), '#f6f1e4', '#1d1a17', 8),
    },
    { name: 'Seed scales', shelf: 'Prints', ...ours, svg: engraving(seeded(14), '#f3ecdb', '#2b2118', 10) },
    {
      name: 'Market cloth',
      shelf: 'Paint',
      credit: 'R. Vance',
      licence: 'ours',
      licenceDays: null,
      svg: gouache(seeded(15), market, 1),
    },
    {
      name: 'Orchard cloth',
      shelf: 'Paint',
      credit: 'R. Vance',
      licence: 'ours',
      licenceDays: null,
      svg: gouache(seeded(16), orchard, 2),
    },
    {
      name: 'Dye test 4',
      shelf: 'Paint',
      ...ours,
      svg: wash(seeded(17), '#fbf8f1', ['#5f8fae', '#e0a37a', '#8fb08a', '#c97f8d', '#e6cf86', '#6d7fa0'], 1),
    },
    {
      name: 'Dye test 9',
      shelf: 'Paint',
      ...ours,
      svg: wash(seeded(18), '#f8f5ea', ['#7a9a6a', '#d7b35a', '#a8677a', '#86a9a0', '#c98f63'], 2),
    },
    {
      name: 'Winter window',
      shelf: 'Paper and stencil',
      credit: 'T. Bielak',
      licence: 'ours',
      licenceDays: null,
      svg: cutPaper(seeded(19), ['#f2efe6', '#f7d9c4', '#ef8f6b', '#2b4c7e', '#567ebb', '#1f1f3d']),
    },
    {
      name: 'Frost window',
      shelf: 'Paper and stencil',
      credit: 'T. Bielak',
      licence: 'ours',
      licenceDays: null,
      svg: cutPaper(seeded(20), ['#eef0ee', '#c9d8d3', '#5f7f6b', '#8e2a4b', '#e5d9bd', '#23262b']),
    },
    {
      name: 'Crate stencil',
      shelf: 'Paper and stencil',
      credit: 'Found, packing house',
      licence: 'one campaign',
      licenceDays: -20,
      svg: spotPrint(seeded(21), '#f5f0e6', ['#ff5a60', '#2a5caa', '#ffc63a'], 1),
    },
    {
      name: 'Barrow stencil',
      shelf: 'Paper and stencil',
      ...ours,
      svg: spotPrint(seeded(22), '#f3eee2', ['#d9553a', '#3b7a62', '#e8b23a'], 2),
    },
  ];
}
