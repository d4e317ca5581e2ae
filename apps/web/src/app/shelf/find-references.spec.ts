import type { Look, Reference } from '@zinc/contract';
import { labOfHex } from '@zinc/core';
import { ANY, findReferences, usedPictures } from './find-references';

const reference = (name: string, more: Partial<Reference>, colours: [string, number][] = [['#f3eee2', 1]]): Reference =>
  ({
    id: name,
    name,
    shelf: 'Paint',
    credit: 'ours',
    licence: 'ours',
    licenceEnds: null,
    state: 'in use',
    grade: null,
    picture: { sha256: name, width: 1, height: 1 },
    tags: [],
    origin: null,
    addedBy: 'Ruta Vance',
    palette: colours.map(([hex, share]) => ({ ...labOfHex(hex), share })),
    ...more,
  }) as unknown as Reference;
const shelf = [
  reference('Frost', { grade: 8 }, [
    ['#8e2a4b', 0.1],
    ['#f3eee2', 0.9],
  ]),
  reference('Furrow', { licenceEnds: '2020-01-01' }, [['#8e2a4b', 0.6]]),
  reference('Hedge', { licence: '', grade: 2 }),
  reference('Gone', { state: 'put away' }),
];
const find = (part: Partial<typeof ANY>, used = new Set<string>(), fitting: Set<string> | null = null): string =>
  findReferences(shelf, { ...ANY, ...part }, fitting, used, '2026-01-01')
    .map(r => r.name)
    .join(' ');

describe('finding references', () => {
  it('goes by words, rights and grade, and never shows what is put away', () => {
    expect(find({})).toBe('Frost Furrow Hedge');
    expect(find({}, undefined, new Set(['Frost', 'Gone']))).toBe('Frost');
    expect(find({ rights: 'usable' })).toBe('Frost');
    expect(find({ grade: 2 })).toBe('Frost Hedge');
  });
  it('finds a colour, most of it first', () => {
    expect(find({ colour: '#8f2c4c' })).toBe('Furrow Frost');
    expect(find({ colour: '#00a0ff' })).toBe('');
  });
  it('tells what a look uses from what none does', () => {
    const used = usedPictures([{ latest: { sources: [{ sha256: 'Hedge' }, { sha256: null }] } } as unknown as Look]);
    expect(find({ use: 'used' }, used)).toBe('Hedge');
    expect(find({ use: 'unused' }, used)).toBe('Frost Furrow');
  });
});
