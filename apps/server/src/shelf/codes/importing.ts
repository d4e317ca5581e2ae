import {
  guardCell,
  type CodeColumn,
  type ImportPlan,
  type ImportPreview,
  type ImportResult,
  type RefusedRow,
  type StyleCode,
  type UndoResult,
} from '@zinc/contract';
import { decodeStyle, encodeStyle, StyleCodeError } from '@zinc/core';
import { and, eq, getTableColumns, inArray } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../../context.ts';
import { isDuplicate, type Queries } from '../../db/connect.ts';
import { ProblemError } from '../../http/problemError.ts';
import { FIRST_SHELF, codesAfter } from './service.ts';
import { gradeFrom, guessColumns, guessScale, readSheet, type Sheet } from './spreadsheet.ts';
import { codeImports, styleCodes, type MergedCode } from './tables.ts';

/** What an import looks at of a code that is on the shelf; what it measures is large, and not asked for. */
const { summary: _measured, ...KNOWN } = getTableColumns(styleCodes);

const SAMPLE = 8;
const CHUNK = 500;
/** Working out what a wrong code may have meant takes time; past this many the report says only what is wrong. */
const MENDED = 200;
const MOST_NOTE = 1000;

/** What a file holds and how it would be read, before anything is brought in. */
export async function previewImport(bytes: Uint8Array): Promise<ImportPreview> {
  const { encoding, header, rows } = await readSheet(bytes);
  const columns = guessColumns(header);
  const grades = columns.grade === undefined ? [] : rows.map(r => r.cells[columns.grade!] ?? '');
  return {
    encoding,
    header,
    rows: rows.slice(0, SAMPLE).map(r => r.cells),
    count: rows.length,
    plan: { columns, scale: guessScale(grades), duplicates: 'leave' },
  };
}

type Incoming = Pick<StyleCode, 'kind' | 'text' | 'press' | 'name' | 'grade' | 'note' | 'tags' | 'shelf'>;

const key = (c: { press: string; text: string }): string => `${c.press}\n${c.text}`;

/** One row as a code. Throws RangeError or StyleCodeError with what is wrong. */
function codeOf(cells: readonly string[], plan: ImportPlan): Incoming {
  const cell = (column: CodeColumn): string => {
    const at = plan.columns[column];
    return at === undefined ? '' : (cells[at] ?? '').trim();
  };
  const limited = (column: CodeColumn, most: number): string => {
    const value = cell(column);
    if (value.length > most) throw new RangeError(`The ${column} has ${value.length} characters; at most ${most} can be kept`);
    return value;
  };
  const press = limited('press', 80);
  const given = limited('text', 200);
  if (given === '') throw new RangeError('There is no code in this row');
  const tags = [
    ...new Set(
      limited('tags', 800)
        .split(/[;,|]/)
        .map(t => t.trim())
        .filter(Boolean),
    ),
  ];
  if (tags.length > 20 || tags.some(t => t.length > 40)) throw new RangeError('At most 20 tags of 40 characters can be kept');
  return {
    kind: press ? 'foreign' : 'own',
    text: press ? given : encodeStyle(decodeStyle(given)),
    press,
    name: limited('name', 120),
    grade: gradeFrom(cell('grade'), plan.scale),
    note: limited('note', MOST_NOTE),
    tags,
    shelf: limited('shelf', 80),
  };
}

/** Two notes on one code: what is in both stands once. */
function mergeNotes(first: string, second: string): string {
  if (!second || first.includes(second)) return first;
  return (first ? `${first}\n${second}` : second).slice(0, MOST_NOTE);
}

/** What a row adds to a code; one that was put away comes back. */
function merge<T extends Pick<Incoming, 'name' | 'grade' | 'note' | 'tags' | 'shelf'>>(onto: T, more: Incoming): T {
  return {
    ...onto,
    ...('state' in onto ? { state: 'in use' } : {}),
    name: onto.name || more.name,
    grade: more.grade ?? onto.grade,
    note: mergeNotes(onto.note, more.note),
    tags: [...new Set([...onto.tags, ...more.tags])].slice(0, 20),
    shelf: more.shelf || onto.shelf,
  };
}

interface Sorted {
  fresh: Map<string, Incoming>;
  again: Map<string, Incoming>;
  left: number;
  refused: RefusedRow[];
}

/** Reads all rows: new codes, codes that are on the shelf, and rows that cannot be used. Lets other work in between. */
async function sortRows(sheet: Sheet, plan: ImportPlan, known: ReadonlyMap<string, { state: string }>): Promise<Sorted> {
  const out: Sorted = { fresh: new Map(), again: new Map(), left: 0, refused: [] };
  for (const [i, { line, cells }] of sheet.rows.entries()) {
    if (i % CHUNK === CHUNK - 1) await new Promise(resolve => setImmediate(resolve));
    try {
      const code = codeOf(cells, plan);
      const k = key(code);
      const shelved = known.get(k);
      const into = shelved ? out.again : out.fresh;
      const same = into.get(k);
      if (plan.duplicates === 'leave' && (same || (shelved && shelved.state !== 'put away'))) out.left++;
      else into.set(k, same ? merge(same, code) : code);
    } catch (error) {
      if (!(error instanceof RangeError) && !(error instanceof StyleCodeError)) throw error;
      const meant = error instanceof StyleCodeError && out.refused.length < MENDED ? error.suggestions : [];
      out.refused.push({
        line,
        what: (cells[plan.columns.text ?? 0] ?? '').slice(0, 60),
        reason: `${error.message}${meant.length > 0 ? ` Perhaps ${meant.join(' or ')}.` : ''}`,
      });
    }
  }
  return out;
}

/** Brings in a spreadsheet of codes in one transaction: all that can be used, or, when something breaks, nothing. */
export async function importCodes(
  context: Context,
  file: string,
  bytes: Uint8Array,
  plan: ImportPlan,
  personId: string,
): Promise<ImportResult> {
  const sheet = await readSheet(bytes);
  if (plan.columns.text === undefined)
    throw new ProblemError('badInput', 'Say which column holds the codes.', { field: 'columns.text' });
  const id = uuidv7();
  const result = await whole(context, async tx => {
    const rows = await tx.select(KNOWN).from(styleCodes);
    const known = new Map(rows.map(r => [key(r), r]));
    const sorted = await sortRows(sheet, plan, known);
    const merged: MergedCode[] = [];
    if (sorted.fresh.size + sorted.again.size > 0)
      await tx.insert(codeImports).values({ id, file: file.slice(0, 200), merged: [], who: personId, at: new Date() });
    const fresh = [...sorted.fresh.values()];
    for (let at = 0; at < fresh.length; at += CHUNK)
      await tx.insert(styleCodes).values(
        fresh.slice(at, at + CHUNK).map(code => ({
          ...code,
          id: uuidv7(),
          shelf: code.shelf || FIRST_SHELF,
          state: 'in use' as const,
          importId: id,
          addedBy: personId,
          addedAt: new Date(),
        })),
      );
    let left = sorted.left;
    for (const [k, code] of sorted.again) {
      const row = known.get(k)!;
      const { name, grade, note, tags, shelf, state } = row;
      const before = { name, grade, note, tags, shelf, state };
      const after = merge(before, code);
      if (JSON.stringify(after) === JSON.stringify(before)) {
        left++;
        continue;
      }
      await tx
        .update(styleCodes)
        .set({ ...after, revision: row.revision + 1 })
        .where(eq(styleCodes.id, row.id));
      merged.push({ id: row.id, revision: row.revision + 1, before });
    }
    if (merged.length > 0) await tx.update(codeImports).set({ merged }).where(eq(codeImports.id, id));
    const changed = fresh.length + merged.length > 0;
    if (changed) await context.events.add(tx, 'codesChanged', id, personId);
    return {
      id: changed ? id : null,
      added: fresh.length,
      merged: merged.length,
      left,
      refused: sorted.refused,
      mayUndo: changed,
    };
  });
  context.codes.poke();
  return result;
}

/** All of an import or nothing. Throws `changedMeanwhile` when someone else kept one of its codes between looking and writing. */
async function whole<T>(context: Context, work: (tx: Queries) => Promise<T>): Promise<T> {
  try {
    return await context.db.transaction(work);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw new ProblemError(
      'changedMeanwhile',
      'Someone kept one of these codes meanwhile, so nothing was brought in. Bring the file in again.',
    );
  }
}

async function forget(tx: Queries, ids: string[]): Promise<void> {
  for (let at = 0; at < ids.length; at += CHUNK)
    await tx.delete(styleCodes).where(inArray(styleCodes.id, ids.slice(at, at + CHUNK)));
}

/** Takes an import back: what it added goes, what it merged becomes as it was. A code that someone changed since is kept as it is. */
export async function undoImport(context: Context, id: string, personId: string): Promise<UndoResult> {
  return context.db.transaction(async tx => {
    const [found] = await tx.select().from(codeImports).where(eq(codeImports.id, id)).for('update');
    if (!found) throw new ProblemError('notFound', 'This import is not known, or it is taken back already.');
    const added = await tx
      .select({ id: styleCodes.id, revision: styleCodes.revision })
      .from(styleCodes)
      .where(eq(styleCodes.importId, id));
    const untouched = added.filter(a => a.revision === 1).map(a => a.id);
    await forget(tx, untouched);
    let restored = 0;
    for (const { id: code, revision, before } of found.merged) {
      const [done] = await tx
        .update(styleCodes)
        .set({ ...before, revision: revision + 1 })
        .where(and(eq(styleCodes.id, code), eq(styleCodes.revision, revision)));
      restored += done.affectedRows;
    }
    await tx.update(styleCodes).set({ importId: null }).where(eq(styleCodes.importId, id));
    await tx.delete(codeImports).where(eq(codeImports.id, id));
    await context.events.add(tx, 'codesChanged', id, personId);
    return {
      removed: untouched.length,
      restored,
      kept: added.length - untouched.length + found.merged.length - restored,
    };
  });
}

/** Every code that is not put away, as comma-separated values that come back in without loss. */
export async function exportCodes(context: Context): Promise<string> {
  const all: StyleCode[] = [];
  for (
    let page = await codesAfter(context, undefined, 1000);
    page.length > 0;
    page = await codesAfter(context, page.at(-1)!.id, 1000)
  )
    all.push(...page);
  return stringify(
    all.map(c =>
      [c.text, c.press, c.name, c.grade === null ? '' : String(c.grade), c.note, c.tags.join('; '), c.shelf].map(guardCell),
    ),
    {
      header: true,
      columns: ['code', 'press', 'name', 'grade', 'note', 'tags', 'shelf'],
      bom: true,
      record_delimiter: 'windows',
    },
  );
}
