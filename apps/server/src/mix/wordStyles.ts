import {
  guardCell,
  unguardCell,
  wordStyleInputSchema,
  ValidationError,
  type WordStyle,
  type WordStyleInput,
} from '@zinc/contract';
import { stringify } from 'csv-stringify/sync';
import { asc, eq, type SQL } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { people } from '../people/tables.ts';
import { readSheet } from '../shelf/codes/spreadsheet.ts';
import { wordStyles } from './tables.ts';

/** Columns of the open file, in order; lists have a vertical bar between their phrases. */
const COLUMNS = ['name', 'purpose', 'before', 'after', 'avoid', 'by default', 'grade'] as const;
const MOST = 2000;

export async function selectWordStyles(context: Context, where?: SQL): Promise<WordStyle[]> {
  const rows = await context.db
    .select({ w: wordStyles, by: people.name })
    .from(wordStyles)
    .innerJoin(people, eq(people.id, wordStyles.addedBy))
    .where(where)
    .orderBy(asc(wordStyles.name));
  return rows.map(({ w, by }) => {
    const { id, name, purpose, before, after, avoid, byDefault, grade, revision } = w;
    return { id, name, purpose, before, after, avoid, byDefault, grade, revision, addedBy: by };
  });
}

export async function oneWordStyle(context: Context, id: string): Promise<WordStyle> {
  const [found] = await selectWordStyles(context, eq(wordStyles.id, id));
  if (!found) throw new ProblemError('notFound', 'This word style is not in the house.');
  return found;
}

/** A word style that says nothing is none. */
export function checkSays({ before, after }: WordStyleInput): void {
  if (before.length + after.length === 0)
    throw new ProblemError('badInput', 'Write at least one phrase before or after the subject.', { field: 'after' });
}

export const sameName = (name: string): ProblemError =>
  new ProblemError('inTheWay', `There is a word style called “${name}” already. Give this one another name.`, { field: 'name' });

export async function addWordStyle(context: Context, input: WordStyleInput, personId: string): Promise<string> {
  checkSays(input);
  const id = uuidv7();
  const { name, purpose, before, after, avoid, byDefault, grade } = input;
  try {
    await context.db.transaction(async tx => {
      await tx.insert(wordStyles).values({
        id,
        name,
        purpose,
        before,
        after,
        avoid,
        byDefault,
        grade: grade ?? null,
        addedBy: personId,
        addedAt: new Date(),
      });
      await context.events.add(tx, 'wordStylesChanged', id, personId);
    });
  } catch (error) {
    throw isDuplicate(error) ? sameName(name) : error;
  }
  return id;
}

/** Every word style as an open file. */
export async function exportWordStyles(context: Context, as: 'csv' | 'json'): Promise<string> {
  const all = await selectWordStyles(context);
  if (as === 'json')
    return JSON.stringify(
      {
        wordStyles: all.map(({ name, purpose, before, after, avoid, byDefault, grade }) => ({
          name,
          purpose,
          before,
          after,
          avoid,
          byDefault,
          grade,
        })),
      },
      null,
      2,
    );
  const list = (phrases: string[]): string => guardCell(phrases.join(' | '));
  return stringify(
    all.map(w => [
      guardCell(w.name),
      guardCell(w.purpose),
      list(w.before),
      list(w.after),
      list(w.avoid),
      w.byDefault ? 'yes' : '',
      w.grade ?? '',
    ]),
    { header: true, columns: [...COLUMNS] },
  );
}

export interface ImportedWordStyles {
  added: number;
  left: number;
  refused: { line: number; what: string; reason: string }[];
}

/** Brings word styles in from JSON or CSV. Names that are there already are left as they are; every entry refused is told with its reason. */
export async function importWordStyles(context: Context, bytes: Buffer, personId: string): Promise<ImportedWordStyles> {
  const entries = bytes.toString('utf8').trimStart().startsWith('{') ? readJson(bytes) : await readCsv(bytes);
  if (entries.length > MOST)
    throw new ProblemError(
      'badInput',
      `The file holds ${entries.length} word styles; at most ${MOST} can be brought in at once.`,
      { field: 'file' },
    );
  const out: ImportedWordStyles = { added: 0, left: 0, refused: [] };
  for (const { line, value } of entries) {
    try {
      await addWordStyle(context, await wordStyleInputSchema.validate(value, { stripUnknown: true }), personId);
      out.added++;
    } catch (error) {
      if (error instanceof ProblemError && error.document.code === 'inTheWay') out.left++;
      else if (error instanceof ProblemError || error instanceof ValidationError)
        out.refused.push({ line, what: nameOf(value), reason: error.message });
      else throw error;
    }
  }
  return out;
}

function nameOf(value: unknown): string {
  return String((value as { name?: unknown } | null)?.name ?? '').slice(0, 120);
}

function readJson(bytes: Buffer): { line: number; value: unknown }[] {
  let list: unknown;
  try {
    list = (JSON.parse(bytes.toString('utf8')) as { wordStyles?: unknown }).wordStyles;
  } catch (error) {
    throw new ProblemError('badInput', `The file is not whole JSON: ${(error as Error).message}`, { field: 'file' });
  }
  if (!Array.isArray(list))
    throw new ProblemError('badInput', 'The file has no list called wordStyles. Bring one that was exported from here, or CSV.', {
      field: 'file',
    });
  return list.map((value, i) => ({ line: i + 1, value: value as unknown }));
}

async function readCsv(bytes: Buffer): Promise<{ line: number; value: unknown }[]> {
  const { header, rows } = await readSheet(bytes);
  const at = (name: string): number => header.findIndex(h => h.trim().toLowerCase() === name);
  if (at('name') < 0 || (at('before') < 0 && at('after') < 0))
    throw new ProblemError(
      'badInput',
      `The first row must name the columns: ${COLUMNS.join(', ')}. Name and one of before and after are needed.`,
      {
        field: 'file',
      },
    );
  return rows.map(({ line, cells }) => {
    const cell = (name: string): string => unguardCell((at(name) < 0 ? '' : (cells[at(name)] ?? '')).trim());
    const list = (name: string): string[] =>
      cell(name)
        .split('|')
        .map(p => p.trim())
        .filter(Boolean);
    return {
      line,
      value: {
        name: cell('name'),
        purpose: cell('purpose'),
        before: list('before'),
        after: list('after'),
        avoid: list('avoid'),
        byDefault: /^(yes|true|1)$/i.test(cell('by default')),
        grade: cell('grade') === '' ? null : Number(cell('grade')),
      },
    };
  });
}
