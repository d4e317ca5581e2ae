import { readFile, writeFile } from 'node:fs/promises';
import { FACETS, measure, mix, paint, type Picture, type Style } from '@zinc/core';
import { drawSubject, photograph, YARDSTICK } from '@zinc/scenes';
import { firstReferences } from '../../apps/server/src/demo/references/index.ts';
import { makeContents, type Content } from './contents.ts';
import {
  binding,
  evenSteps,
  falls,
  fidelity,
  goldens,
  labels,
  nearestOwn,
  never,
  paintAll,
  separation,
  type Figure,
} from './figures.ts';
import { makeReferences, pixelsOf, type Reference } from './references.ts';
import { writeSheets } from './sheets.ts';
import { lettering } from './lettering.ts';
import { speed } from './speed.ts';

const OUT = 'bench/out';
const SIDE = 512;
const say = (text: string): void => console.log(text);

/** Writes contact sheets and the table of figures into bench/out. References and contents judged on share nothing with those tuned on. */
export async function reportEngine(): Promise<void> {
  say('References and contents of the judging set …');
  const references = await makeReferences('judging');
  const contents = makeContents('judging', SIDE);
  const photos = contents.filter(c => c.kind === 'photo');
  const subjects = contents.filter(c => c.kind === 'subject');
  const firsts = references.filter(r => r.name.endsWith(' 1'));
  say('Contact sheets …');
  const sheets = await writeSheets(OUT, references, contents, 256);
  say(`${references.length} looks × ${contents.length} contents …`);
  const painted = paintAll(references, contents, say);
  const own = new Map(contents.map(c => [c, measure(c.picture)]));
  say('Strength, bind, fidelity, never …');
  const kept = JSON.parse(await readFile('packages/scenes/src/golden.json', 'utf8')) as Record<string, string>;
  const figures: Figure[] = [
    ...nearestOwn(painted, references),
    ...separation(painted),
    labels(painted),
    ...falls(painted, own),
    evenSteps(firsts, contents),
    binding(firsts, subjects.slice(0, 4)),
    fidelity(firsts, photos),
    never(firsts, photograph('kale', 9, 320, 320)),
    goldens(kept),
    ...lettering(await lettered(references, contents)),
    ...(await speed(firsts)),
  ];
  const table = [
    '| figure | study | aim | now | met |',
    '|---|---|---|---|---|',
    ...figures.map(f => `| ${f.name} | ${f.study} | ${f.aim} | ${f.value} | ${f.aim === '–' ? '–' : f.met ? 'yes' : 'no'} |`),
  ].join('\n');
  await writeFile(`${OUT}/figures.md`, `${table}\n`);
  say(`\n${table}\n\nSheets in ${OUT}: ${sheets.join(', ')}`);
}

/** Pictures without a letter: references of both sets and of the demo house, contents, and a few of them painted. */
async function lettered(references: Reference[], contents: Content[]): Promise<Picture[]> {
  const demo = await Promise.all(firstReferences().map(r => pixelsOf(r.svg)));
  const style = (r: Reference): Style => mix([{ parts: 1, facets: [...FACETS], fingerprint: r.fingerprint }]).style;
  const painted = references.map((r, i) => paint(contents[i % contents.length].picture, style(r), 0.9, i));
  const tuning = await makeReferences('tuning');
  return [...demo, ...[...references, ...tuning].map(r => r.picture), ...contents.map(c => c.picture), ...painted];
}

/** Writes the few small sheets that docs/engine.md shows, from the demo house's own references and yardstick. */
export async function sheetsForDocs(): Promise<void> {
  const chosen = firstReferences().filter((_, k) => k % 2 === 0);
  const references = await Promise.all(
    chosen.map(async ({ name, svg }): Promise<Reference> => {
      const picture = await pixelsOf(svg);
      return { name: `${name} 1`, family: name, picture, fingerprint: measure(picture) };
    }),
  );
  const contents = YARDSTICK.map(({ name, seed }): Content => {
    const { picture, mask, parts } = drawSubject(name, seed, SIDE, SIDE);
    return { name, kind: 'subject', picture, options: { mask, parts } };
  });
  const written = await writeSheets('docs/engine', references, contents, 168, [
    'subjects-by-looks',
    'strength-ladder',
    'subjects',
  ]);
  say(`In docs/engine: ${written.join(', ')}`);
}
