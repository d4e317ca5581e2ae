import { subjectListInputSchema, subjectListSchema, type SubjectList } from '@zinc/contract';
import { asc, eq } from 'drizzle-orm';
import { array, object } from 'yup';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../context.ts';
import { isDuplicate, type Queries } from '../db/connect.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { subjectListItems, subjectLists, subjects } from './tables.ts';

/** Lists by name; subjects that were put away are not in them. */
async function selectLists(context: Context): Promise<SubjectList[]> {
  const lists = await context.db.select().from(subjectLists).orderBy(asc(subjectLists.name));
  const items = await context.db
    .select({ listId: subjectListItems.listId, subjectId: subjectListItems.subjectId })
    .from(subjectListItems)
    .innerJoin(subjects, eq(subjects.id, subjectListItems.subjectId))
    .where(eq(subjects.state, 'in use'))
    .orderBy(asc(subjectListItems.place));
  return lists.map(({ id, name }) => ({ id, name, subjectIds: items.filter(i => i.listId === id).map(i => i.subjectId) }));
}

async function fill(tx: Queries, listId: string, subjectIds: readonly string[]): Promise<void> {
  const unique = [...new Set(subjectIds)];
  await tx.insert(subjectListItems).values(unique.map((subjectId, place) => ({ listId, subjectId, place })));
}

const answer = object({ items: array(subjectListSchema.required()).required() });

export const listRoutes = [
  route({
    method: 'get',
    path: '/subject-lists',
    roles: EVERYONE,
    summary: 'Lists of subjects, by name',
    response: answer,
    handle: async ({ context }) => ({ items: await selectLists(context) }),
  }),
  route({
    method: 'post',
    path: '/subject-lists',
    roles: MAKERS,
    summary: 'Keep subjects as a list; one of the same name takes the new ones in place of its own',
    body: subjectListInputSchema,
    response: answer,
    status: 201,
    async handle({ context, body, person }) {
      await context.db.transaction(async tx => {
        const [known] = await tx.select().from(subjectLists).where(eq(subjectLists.name, body.name));
        const id = known?.id ?? uuidv7();
        try {
          if (known) await tx.delete(subjectListItems).where(eq(subjectListItems.listId, id));
          else await tx.insert(subjectLists).values({ id, name: body.name, createdAt: new Date() });
          await fill(tx, id, body.subjectIds);
        } catch (error) {
          if (isDuplicate(error))
            throw new ProblemError('inTheWay', 'Someone keeps a list of this name just now. Try once more.');
          throw new ProblemError('badInput', 'One of the subjects is not in the house any more.', { field: 'subjectIds' });
        }
        await context.events.add(tx, 'subjectsAdded', null, person.id, { list: body.name });
      });
      return { items: await selectLists(context) };
    },
  }),
  route({
    method: 'delete',
    path: '/subject-lists/:id',
    roles: MAKERS,
    summary: 'Take a list apart; its subjects stay',
    response: answer,
    async handle({ context, params }) {
      const [result] = await context.db.delete(subjectLists).where(eq(subjectLists.id, params.id));
      if (result.affectedRows === 0) throw new ProblemError('notFound', 'This list is not in the house.');
      return { items: await selectLists(context) };
    },
  }),
];
