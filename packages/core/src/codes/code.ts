import { WORDS } from './words.ts';

/** Version of the meaning of style codes. Check numbers above 2052 are left for later ones. */
export const CODE_VERSION = 1;

/** Every setting that a code carries, where it stands, and how many steps it has. */
export const CODE_FIELDS = {
  family: { word: 0, steps: 8 },
  palette: { word: 0, steps: 64 },
  key: { word: 0, steps: 4 },
  scale: { word: 1, steps: 8 },
  amount: { word: 1, steps: 8 },
  line: { word: 1, steps: 4 },
  angle: { word: 1, steps: 8 },
  contrast: { word: 2, steps: 4 },
  simplify: { word: 2, steps: 4 },
  grain: { word: 2, steps: 4 },
  wobble: { word: 2, steps: 4 },
  chroma: { word: 2, steps: 4 },
  lead: { word: 2, steps: 2 },
} as const;

export type CodeField = keyof typeof CODE_FIELDS;
export type CodeSettings = Record<CodeField, number>;
export const CODE_KEYS = Object.keys(CODE_FIELDS) as CodeField[];

/** Modulus of the check number: a prime above the number of words, so that a wrong word or a swap always shows. */
const CHECK = 2053;
/** Distinct and not 0 modulo 2053. */
const FACTORS = [1, 607, 1409];

/** A code that cannot be read, with the nearest right ones. */
export class StyleCodeError extends Error {
  override name = 'StyleCodeError';
  constructor(
    message: string,
    readonly suggestions: string[],
  ) {
    super(message);
  }
}

function checkOf(places: readonly number[]): number {
  return places.reduce((sum, w, i) => (sum + FACTORS[i] * w) % CHECK, 0);
}

function write(places: readonly number[]): string {
  return `${places.map(w => WORDS[w]).join('-')}-${String(checkOf(places)).padStart(4, '0')}`;
}

/** The code of some settings. Throws RangeError when one is not a whole number within its steps. */
export function encodeStyle(settings: CodeSettings): string {
  const places = [0, 0, 0];
  for (const key of CODE_KEYS) {
    const { word, steps } = CODE_FIELDS[key];
    const v = settings[key];
    if (!Number.isInteger(v) || v < 0 || v >= steps)
      throw new RangeError(`Got ${v} for ${key}; wanted a whole number from 0 to ${steps - 1}.`);
    places[word] = places[word] * steps + v;
  }
  return write(places);
}

function read(places: readonly number[]): CodeSettings {
  const left = [...places];
  const out = {} as CodeSettings;
  for (const key of [...CODE_KEYS].reverse()) {
    const { word, steps } = CODE_FIELDS[key];
    out[key] = left[word] % steps;
    left[word] = Math.floor(left[word] / steps);
  }
  return out;
}

/**
 * The settings a code carries. Words may be parted by hyphens, spaces or full stops, in any case. Throws StyleCodeError, with the nearest
 * right codes, for a wrong form, an unknown word, a swap or a wrong number.
 */
export function decodeStyle(code: string): CodeSettings {
  const parts = code
    .trim()
    .toLowerCase()
    .split(/[\s.-]+/);
  if (parts.length !== 4 || !/^\d{1,4}$/.test(parts[3]))
    throw new StyleCodeError(`Got “${code}”; a style code is three words and a number, such as ${write([1200, 7, 900])}.`, []);
  const number = Number(parts[3]);
  if (number >= CHECK)
    throw new StyleCodeError(`The number ${number} belongs to a later kind of style code than version ${CODE_VERSION}.`, []);
  const words = parts.slice(0, 3);
  const places = words.map(w => WORDS.indexOf(w));
  const unknown = words.filter((_, i) => places[i] < 0);
  if (unknown.length > 0)
    throw new StyleCodeError(`“${unknown.join('”, “')}” is not a word of style codes.`, mendSpelling(words, number));
  if (checkOf(places) !== number)
    throw new StyleCodeError(
      `The number does not belong to “${words.join('-')}”: a word is wrong, or two have changed places.`,
      mend(places, number),
    );
  return read(places);
}

/** Codes one mistake away whose number is right: a swap, then a wrong number, then one wrong word that is spelt much alike. */
function mend(places: readonly number[], number: number): string[] {
  const out: string[] = [];
  for (const [i, j] of [
    [0, 1],
    [1, 2],
    [0, 2],
  ]) {
    const swapped = [...places];
    [swapped[i], swapped[j]] = [swapped[j], swapped[i]];
    if (checkOf(swapped) === number) out.push(write(swapped));
  }
  const single = places
    .map((_, i) => {
      const word = WORDS.findIndex((__, w) => checkOf(places.map((p, k) => (k === i ? w : p))) === number);
      return { word, i, off: word < 0 ? 99 : spelling(WORDS[word], WORDS[places[i]]) };
    })
    .filter(c => c.word >= 0)
    .sort((p, q) => p.off - q.off);
  for (const c of single) if (c.off <= 2) out.push(write(places.map((p, k) => (k === c.i ? c.word : p))));
  out.push(write(places));
  for (const c of single) if (c.off > 2) out.push(write(places.map((p, k) => (k === c.i ? c.word : p))));
  return [...new Set(out)].slice(0, 4);
}

function mendSpelling(words: readonly string[], number: number): string[] {
  const choices = words.map(w => {
    const known = WORDS.indexOf(w);
    if (known >= 0) return [known];
    return WORDS.map((word, i) => ({ i, off: spelling(word, w) }))
      .sort((p, q) => p.off - q.off)
      .slice(0, 40)
      .map(c => c.i);
  });
  const all = choices[0].flatMap(a => choices[1].flatMap(b => choices[2].map(c => [a, b, c])));
  return all
    .filter(places => checkOf(places) === number)
    .map(write)
    .slice(0, 3);
}

/** Letters to change, add or drop to come from one word to the other (Levenshtein 1966). */
function spelling(p: string, q: string): number {
  let row = Array.from({ length: q.length + 1 }, (_, i) => i);
  for (let i = 1; i <= p.length; i++) {
    const next = [i];
    for (let j = 1; j <= q.length; j++)
      next[j] = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (p[i - 1] === q[j - 1] ? 0 : 1));
    row = next;
  }
  return row[q.length];
}

/** Codes one step away in one setting: near relatives. The medium stays; palettes step within their group. */
export function nearCodes(code: string): string[] {
  const own = decodeStyle(code);
  const out: string[] = [];
  for (const key of CODE_KEYS) {
    if (key === 'family') continue;
    for (const by of [-1, 1]) {
      const { steps } = CODE_FIELDS[key];
      let v = own[key] + by;
      if (key === 'angle') v = (v + steps) % steps;
      else if (v < 0 || v >= steps) continue;
      if (key === 'palette' && v >> 3 !== own.palette >> 3) continue;
      out.push(encodeStyle({ ...own, [key]: v }));
    }
  }
  return out;
}

/** A code at random, from a source of numbers in [0, 1). */
export function randomCode(random: () => number): string {
  const settings = Object.fromEntries(CODE_KEYS.map(k => [k, Math.floor(random() * CODE_FIELDS[k].steps)])) as CodeSettings;
  return encodeStyle(settings);
}
