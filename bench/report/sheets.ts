import { mkdir } from 'node:fs/promises';
import { dirname } from 'node:path';
import { bindingSheet, FACETS, measure, mix, paint, randomCode, styleOfCode, type Facet, type Picture } from '@zinc/core';
import { randomFor } from '@zinc/core/number/random';
import { drawSubject, SUBJECTS } from '@zinc/scenes';
import sharp from 'sharp';
import type { Content } from './contents.ts';
import type { Reference } from './references.ts';

const GAP = 6;

/** Lays pictures out in rows on one sheet and writes it. */
async function writeSheet(file: string, rows: Picture[][], cell: number): Promise<void> {
  const columns = Math.max(...rows.map(r => r.length));
  const layers = await Promise.all(
    rows.flatMap((row, y) =>
      row.map(async (p, x) => ({
        input: await sharp(p.data, { raw: { width: p.width, height: p.height, channels: 4 } })
          .resize(cell, cell, { fit: 'contain', background: '#8a8a86' })
          .png()
          .toBuffer(),
        left: GAP + x * (cell + GAP),
        top: GAP + y * (cell + GAP),
      })),
    ),
  );
  await mkdir(dirname(file), { recursive: true });
  await sharp({
    create: { width: GAP + columns * (cell + GAP), height: GAP + rows.length * (cell + GAP), channels: 3, background: '#8a8a86' },
  })
    .composite(layers)
    .jpeg({ quality: 84, mozjpeg: true })
    .toFile(file);
}

const styleOf = (r: Reference, facets: readonly Facet[] = FACETS): ReturnType<typeof mix>['style'] =>
  mix([{ parts: 1, facets: [...facets], fingerprint: r.fingerprint }]).style;

/** Every sheet of the report (or `only` some), into `folder`; `cell` is the side of one picture. */
export async function writeSheets(
  folder: string,
  references: Reference[],
  contents: Content[],
  cell: number,
  only?: readonly string[],
): Promise<string[]> {
  const written: string[] = [];
  const sheet = async (name: string, make: () => Picture[][]): Promise<void> => {
    if (only && !only.includes(name)) return;
    await writeSheet(`${folder}/${name}.jpg`, make(), cell);
    written.push(`${name}.jpg`);
  };
  const firsts = references.filter(r => r.name.endsWith(' 1'));
  const show = (c: Content, r: Reference, strength = 1, facets?: readonly Facet[]): Picture =>
    paint(c.picture, styleOf(r, facets), strength, 5, c.options);
  const subjects = contents.filter(c => c.kind === 'subject').slice(0, 5);
  const photos = contents.filter(c => c.kind === 'photo').slice(0, 3);
  const blank = (p: Picture): Picture => ({ ...p, data: new Uint8ClampedArray(p.data.length).fill(138) });
  await sheet('subjects-by-looks', () => [
    [blank(contents[0].picture), ...subjects.map(c => c.picture)],
    ...firsts.map(r => [r.picture, ...subjects.map(c => show(c, r))]),
  ]);
  await sheet('photographs-by-looks', () => [
    [blank(contents[0].picture), ...photos.map(c => c.picture)],
    ...firsts.map(r => [r.picture, ...photos.map(c => show(c, r))]),
  ]);
  const ladder = [0, 0.2, 0.4, 0.6, 0.8, 1];
  await sheet('strength-ladder', () => firsts.map((r, k) => ladder.map(s => show(contents[k % contents.length], r, s))));
  await sheet('facets', () =>
    firsts.slice(0, 4).map((r, k) => {
      const c = subjects[k % subjects.length];
      return [
        c.picture,
        show(c, r, 1, ['line', 'texture']),
        show(c, r, 1, ['colour']),
        show(c, r, 1, ['colour', 'light']),
        show(c, r),
      ];
    }),
  );
  await sheet('mixes', () =>
    [
      [0, 4],
      [1, 3],
      [5, 7],
    ].map(([p, q], k) =>
      [0, 1, 2, 3, 4].map(part => {
        const sources = [
          { parts: 4 - part, facets: [...FACETS], fingerprint: firsts[p].fingerprint },
          { parts: part, facets: [...FACETS], fingerprint: firsts[q].fingerprint },
        ];
        const c = subjects[k % subjects.length];
        return paint(c.picture, mix(sources).style, 1, 5, c.options);
      }),
    ),
  );
  await sheet('bound-and-not', () =>
    firsts.slice(2, 5).flatMap(r => {
      const free = subjects.map(c => show(c, r));
      const binding = { sheet: bindingSheet(free.map(measure)), amount: 1 };
      return [free, subjects.map(c => paint(c.picture, styleOf(r), 1, 5, { ...c.options, bind: binding }))];
    }),
  );
  await sheet('fidelity', () =>
    firsts.slice(4, 8).map((r, k) => {
      const { picture } = photos[k % photos.length];
      const at = (f: number): Picture => paint(picture, styleOf(r), 1, 5, { fidelity: { subject: f, ground: f } });
      return [picture, at(0), at(0.5), at(0.9)];
    }),
  );
  const random = randomFor(1907, 'codes of the report');
  await sheet('random-codes', () =>
    Array.from({ length: 3 }, (_, y) =>
      Array.from({ length: 6 }, (__, x) => {
        const c = subjects[(y * 6 + x) % subjects.length];
        return paint(c.picture, styleOfCode(randomCode(random)), 1, 5, c.options);
      }),
    ),
  );
  await sheet('subjects', () => {
    const side = contents[0].picture.width;
    const drawn = SUBJECTS.map(s => drawSubject(s.name, 3, side, side).picture);
    return [drawn.slice(0, 8), drawn.slice(8, 16), drawn.slice(16, 24)];
  });
  return written;
}
