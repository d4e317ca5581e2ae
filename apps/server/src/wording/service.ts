import type { Subject, Template, TemplateInput } from '@zinc/contract';
import { checkTemplate, readSubjectList, type Slot } from '@zinc/core';
import { and, asc, desc, eq, ne, type SQL } from 'drizzle-orm';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { people } from '../people/tables.ts';
import { pictures } from '../shelf/tables.ts';
import { subjects, templates, templateVersions } from './tables.ts';

/** Throws at the field when a template cannot be used as it is. */
function refuseFaults(input: TemplateInput): void {
  const faults = checkTemplate(input.text, input.slots as Slot[]).filter(f => f.code !== 'unusedSlot');
  if (faults.length > 0)
    throw new ProblemError('badInput', faults[0].message, {
      field: faults[0].code === 'duplicateSlot' ? 'slots' : 'text',
      findings: faults,
    });
}

/** Templates, each in its newest version. */
export async function selectTemplates(context: Context, where?: SQL): Promise<Template[]> {
  const newest = new Map<string, Template>();
  for (const t of await selectVersions(context, where)) if (!newest.has(t.id)) newest.set(t.id, t);
  return [...newest.values()];
}

/** Every version of templates, the newest first of each. */
export async function selectVersions(context: Context, where?: SQL): Promise<Template[]> {
  const rows = await context.db
    .select({ t: templates, v: templateVersions, author: people.name })
    .from(templates)
    .innerJoin(templateVersions, eq(templateVersions.templateId, templates.id))
    .innerJoin(people, eq(people.id, templateVersions.author))
    .where(and(ne(templates.state, 'put away'), where))
    .orderBy(asc(templates.id), desc(templateVersions.version));
  return rows.map(({ t, v, author }) => ({
    id: t.id,
    name: t.name,
    version: v.version,
    text: v.text,
    avoid: v.avoid,
    slots: v.slots.map(s => ({ ...s, choices: s.choices ?? [] })),
    author,
    madeAt: v.madeAt.toISOString(),
  }));
}

export async function oneTemplate(context: Context, id: string): Promise<Template> {
  const [found] = await selectTemplates(context, eq(templates.id, id));
  if (!found) throw new ProblemError('notFound', 'This template is not in the house.');
  return found;
}

/** Saves a template as version 1. */
export async function createTemplate(context: Context, input: TemplateInput, personId: string): Promise<string> {
  refuseFaults(input);
  const id = uuidv7();
  const { name, text, avoid, slots } = input;
  await context.db.transaction(async tx => {
    await tx.insert(templates).values({ id, name, state: 'in use' });
    await tx
      .insert(templateVersions)
      .values({ templateId: id, version: 1, text, avoid, slots: slots as Slot[], author: personId, madeAt: new Date() });
    await context.events.add(tx, 'templateSaved', id, personId, { name, version: 1 });
  });
  return id;
}

/** Saves the next version of a template. */
export async function addTemplateVersion(
  context: Context,
  id: string,
  basedOn: number,
  input: TemplateInput,
  personId: string,
): Promise<void> {
  refuseFaults(input);
  const before = await oneTemplate(context, id);
  const stale = new ProblemError(
    'changedMeanwhile',
    `“${before.name}” was changed by ${before.author} meanwhile. Yours is kept here; look at theirs, then save again.`,
  );
  if (before.version !== basedOn) throw stale;
  const { name, text, avoid, slots } = input;
  try {
    await context.db.transaction(async tx => {
      await tx.update(templates).set({ name }).where(eq(templates.id, id));
      await tx.insert(templateVersions).values({
        templateId: id,
        version: basedOn + 1,
        text,
        avoid,
        slots: slots as Slot[],
        author: personId,
        madeAt: new Date(),
      });
      await context.events.add(tx, 'templateSaved', id, personId, { name, version: basedOn + 1 });
    });
  } catch (error) {
    throw isDuplicate(error) ? stale : error;
  }
}

export async function selectSubjects(context: Context, where?: SQL): Promise<Subject[]> {
  const rows = await context.db
    .select({ s: subjects, width: pictures.width, height: pictures.height })
    .from(subjects)
    .leftJoin(pictures, eq(pictures.sha256, subjects.sha256))
    .where(and(ne(subjects.state, 'put away'), where))
    .orderBy(asc(subjects.id));
  return rows.map(({ s, width, height }) => ({
    id: s.id,
    label: s.label,
    wording: s.wording,
    avoid: s.avoid,
    colours: s.colours,
    tags: s.tags,
    meaning: s.meaning,
    revision: s.revision,
    picture: s.sha256 && width && height ? { sha256: s.sha256, width, height } : null,
  }));
}

export async function oneSubject(context: Context, id: string): Promise<Subject> {
  const [found] = await selectSubjects(context, eq(subjects.id, id));
  if (!found) throw new ProblemError('notFound', 'This subject is not in the house.');
  return found;
}

/** Adds every subject of a pasted list, or none: faults are told line by line. */
export async function pasteSubjects(context: Context, text: string, personId: string): Promise<string[]> {
  const known = await selectSubjects(context);
  const read = readSubjectList(
    text,
    known.map(s => s.label),
  );
  if (read.subjects.length === 0 && read.faults.length === 0)
    throw new ProblemError('badInput', 'The list is empty. Write one subject a line.', { field: 'text' });
  if (read.faults.length > 0)
    throw new ProblemError(
      'badInput',
      read.faults.length === 1
        ? read.faults[0].message
        : `${read.faults.length} lines cannot be taken. ${read.faults[0].message}`,
      {
        field: 'text',
        findings: read.faults,
      },
    );
  const rows = read.subjects.map(s => ({
    id: uuidv7(),
    label: s.label,
    wording: s.wording,
    avoid: [],
    state: 'in use' as const,
    createdAt: new Date(),
  }));
  await context.db.transaction(async tx => {
    // A label that was put away frees its name for this one.
    for (const row of rows) await tx.delete(subjects).where(and(eq(subjects.label, row.label), eq(subjects.state, 'put away')));
    await tx.insert(subjects).values(rows);
    await context.events.add(tx, 'subjectsAdded', null, personId, { count: rows.length });
  });
  return rows.map(r => r.id);
}
