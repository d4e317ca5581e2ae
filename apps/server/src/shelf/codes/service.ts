import type { CodeInput, StyleCode } from '@zinc/contract';
import { decodeStyle, encodeStyle, MEASURE_VERSION, StyleCodeError, type Fingerprint } from '@zinc/core';
import { and, asc, eq, gt, ne, type SQL } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../../context.ts';
import { isDuplicate } from '../../db/connect.ts';
import { ProblemError } from '../../http/problemError.ts';
import { people } from '../../people/tables.ts';
import { styleCodes } from './tables.ts';

export const FIRST_SHELF = 'Just arrived';

/** The one way to write an own code. Throws `badInput` with what may have been meant. */
export function ownCode(text: string, field = 'text'): string {
  try {
    return encodeStyle(decodeStyle(text));
  } catch (error) {
    if (!(error instanceof StyleCodeError)) throw error;
    const meant = error.suggestions.length > 0 ? ` Perhaps ${error.suggestions.join(' or ')} was meant.` : '';
    throw new ProblemError('badInput', `${error.message}${meant}`, { field, findings: error.suggestions });
  }
}

export async function selectCodes(context: Context, where: SQL | undefined, limit: number): Promise<StyleCode[]> {
  const rows = await context.db
    .select({ c: styleCodes, by: people.name })
    .from(styleCodes)
    .innerJoin(people, eq(people.id, styleCodes.addedBy))
    .where(where)
    .orderBy(asc(styleCodes.id))
    .limit(limit);
  return rows.map(({ c, by }) => {
    const { id, kind, text, press, name, grade, note, tags, shelf, state, revision } = c;
    return {
      id,
      kind,
      text,
      press,
      name,
      grade,
      note,
      tags,
      shelf,
      state,
      revision,
      addedAt: c.addedAt.toISOString(),
      addedBy: by,
    };
  });
}

/** A page of the codes that are not put away, oldest first. */
export function codesAfter(context: Context, after: string | undefined, limit: number): Promise<StyleCode[]> {
  return selectCodes(context, and(ne(styleCodes.state, 'put away'), after ? gt(styleCodes.id, after) : undefined), limit);
}

export async function oneCode(context: Context, id: string): Promise<StyleCode> {
  const [found] = await selectCodes(context, eq(styleCodes.id, id), 1);
  if (!found) throw new ProblemError('notFound', 'This code is not on the shelf.');
  return found;
}

/** Keeps one code. Throws `badInput` when an own code cannot be read, `inTheWay` when it is on the shelf already. */
export async function addCode(context: Context, input: CodeInput, personId: string): Promise<string> {
  const press = input.press ?? '';
  const text = press ? input.text : ownCode(input.text);
  const id = uuidv7();
  try {
    await context.db.transaction(async tx => {
      await tx.insert(styleCodes).values({
        id,
        kind: press ? 'foreign' : 'own',
        text,
        press,
        name: input.name ?? '',
        grade: input.grade ?? null,
        note: input.note ?? '',
        tags: input.tags ?? [],
        shelf: input.shelf ?? FIRST_SHELF,
        state: 'in use',
        addedBy: personId,
        addedAt: new Date(),
      });
      await context.events.add(tx, 'codesChanged', id, personId);
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw new ProblemError('inTheWay', `“${text}” is on the shelf already.`, { field: 'text' });
  }
  context.codes.poke();
  return id;
}

/** What an own code measures: as it is kept, else worked out now. */
export async function codeFingerprint(context: Context, text: string): Promise<Fingerprint> {
  const code = ownCode(text);
  const [kept] = await context.db
    .select({ summary: styleCodes.summary })
    .from(styleCodes)
    .where(and(eq(styleCodes.press, ''), eq(styleCodes.text, code), eq(styleCodes.measure, MEASURE_VERSION)));
  return kept?.summary ?? context.pictures.measureCode(code);
}
