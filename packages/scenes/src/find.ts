import { SUBJECTS } from './subjects/index.ts';
import type { DrawnSubject } from './subjects/types.ts';

/** What the drawer makes of a wording: the subject it found, or none, and the words it will not draw. */
export interface Found {
  subject: DrawnSubject | null;
  ignored: string[];
}

const PHRASES = SUBJECTS.flatMap(subject => subject.words.map(words => ({ subject, words: words.toLowerCase() }))).sort(
  (p, q) => q.words.length - p.words.length,
);

/** Words that carry no picture and so are never reported as ignored. */
const SILENT = new Set(
  'a an the of on in with and or its their this that single one plain ground picture image drawing drawn illustration print painting whole fresh freshly pulled just small large big little tall round old young ripe for to at from by no as up out over under each very'.split(
    ' ',
  ),
);

/** Finds the subject a wording names, longest phrase first, and lists the other words, which are not drawn. */
export function findSubject(wording: string): Found {
  const text = ` ${wording.toLowerCase().replace(/[^a-z'’-]+/g, ' ')} `.replace(/’/g, "'");
  const hit = PHRASES.find(p => text.includes(` ${p.words} `));
  if (!hit) return { subject: null, ignored: [] };
  const ignored = text
    .replace(` ${hit.words} `, ' ')
    .trim()
    .split(/\s+/)
    .filter(w => w.length > 2 && !SILENT.has(w));
  return { subject: hit.subject, ignored: [...new Set(ignored)] };
}
