import { subjectInputSchema, unguardCell, ValidationError, type SubjectsImported } from '@zinc/contract';
import { and, eq } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { readSheet } from '../shelf/codes/spreadsheet.ts';
import { selectSubjects } from './service.ts';
import { subjects } from './tables.ts';

/** Columns that are read, by the names people give them. */
const COLUMNS: Readonly<Record<'label' | 'wording' | 'avoid' | 'colours' | 'tags', readonly string[]>> = {
  label: ['label', 'subject', 'name', 'title'],
  wording: ['wording', 'words', 'text', 'description'],
  avoid: ['avoid', 'without'],
  colours: ['colours', 'colors', 'own colours', 'colour'],
  tags: ['tags', 'tag', 'kind'],
};
/** More than this are better brought in several files. */
const MOST = 5000;

/** Adds the subjects of a CSV file. Rows that cannot be taken are told with their line and why; the others come in. */
export async function importSubjects(context: Context, bytes: Uint8Array, personId: string): Promise<SubjectsImported> {
  const sheet = await readSheet(bytes);
  const at = (name: keyof typeof COLUMNS): number => sheet.header.findIndex(h => COLUMNS[name].includes(h.trim().toLowerCase()));
  const column = Object.fromEntries(Object.keys(COLUMNS).map(k => [k, at(k as keyof typeof COLUMNS)])) as Record<
    keyof typeof COLUMNS,
    number
  >;
  if (column.label < 0)
    throw new ProblemError(
      'badInput',
      `The first line names ${sheet.header.slice(0, 6).join(', ') || 'nothing'}; one column must be called label, and others may be wording, avoid, colours and tags.`,
      { field: 'file' },
    );
  if (sheet.rows.length > MOST)
    throw new ProblemError('badInput', `The file has ${sheet.rows.length} rows; at most ${MOST} subjects come in at once.`, {
      field: 'file',
    });
  const known = new Set((await selectSubjects(context)).map(s => s.label.toLowerCase()));
  const refused: SubjectsImported['refused'] = [];
  const rows: (typeof subjects.$inferInsert)[] = [];
  for (const { line, cells } of sheet.rows) {
    const cell = (name: keyof typeof COLUMNS): string => (column[name] < 0 ? '' : unguardCell(cells[column[name]] ?? '')).trim();
    const list = (name: keyof typeof COLUMNS): string[] =>
      cell(name)
        .split(/[,;|]/)
        .map(v => v.trim())
        .filter(Boolean);
    const label = cell('label');
    try {
      if (known.has(label.toLowerCase())) throw new ValidationError(`“${label}” is a subject already`);
      const { wording, avoid, colours, tags } = subjectInputSchema.validateSync({
        label,
        wording: cell('wording') || label.toLowerCase(),
        avoid: list('avoid'),
        colours: list('colours'),
        tags: list('tags'),
      });
      known.add(label.toLowerCase());
      rows.push({
        id: uuidv7(),
        label,
        wording,
        avoid,
        colours: (colours ?? []) as string[],
        tags: (tags ?? []) as string[],
        state: 'in use',
        createdAt: new Date(),
      });
    } catch (error) {
      refused.push({ line, what: label, reason: (error as Error).message });
    }
  }
  await context.db.transaction(async tx => {
    for (const { label } of rows) await tx.delete(subjects).where(and(eq(subjects.label, label), eq(subjects.state, 'put away')));
    for (let i = 0; i < rows.length; i += 200) await tx.insert(subjects).values(rows.slice(i, i + 200));
    if (rows.length > 0) await context.events.add(tx, 'subjectsAdded', null, personId, { count: rows.length });
  });
  return { added: rows.length, refused: refused.sort((p, q) => p.line - q.line) };
}
