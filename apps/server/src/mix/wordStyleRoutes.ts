import { wordStyleInputSchema, wordStyleSchema, wordStylesImportedSchema } from '@zinc/contract';
import { and, eq } from 'drizzle-orm';
import { array, object } from 'yup';
import { isDuplicate } from '../db/connect.ts';
import { readIfMatch } from '../http/ifMatch.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { readUpload } from '../shelf/upload.ts';
import { wordStyles } from './tables.ts';
import {
  addWordStyle,
  checkSays,
  exportWordStyles,
  importWordStyles,
  oneWordStyle,
  sameName,
  selectWordStyles,
} from './wordStyles.ts';

const exported = (as: 'csv' | 'json') =>
  route({
    method: 'get',
    path: `/word-styles/export.${as}`,
    roles: EVERYONE,
    summary: `Every word style as ${as.toUpperCase()}; it comes back in without loss`,
    produces: as === 'csv' ? 'text/csv' : 'application/json',
    async handle({ context, res }) {
      res
        .type(as === 'csv' ? 'text/csv' : 'application/json')
        .setHeader('Content-Disposition', `attachment; filename="word-styles.${as}"`)
        .send(await exportWordStyles(context, as));
    },
  });

export const wordStyleRoutes = [
  route({
    method: 'get',
    path: '/word-styles',
    roles: EVERYONE,
    summary: 'Word styles by name',
    response: object({ items: array(wordStyleSchema.required()).required() }),
    handle: async ({ context }) => ({ items: await selectWordStyles(context) }),
  }),
  exported('csv'),
  exported('json'),
  route({
    method: 'post',
    path: '/word-styles',
    roles: MAKERS,
    summary: 'Keep a word style',
    body: wordStyleInputSchema,
    status: 201,
    response: wordStyleSchema,
    handle: async ({ context, body, person }) => oneWordStyle(context, await addWordStyle(context, body, person.id)),
  }),
  route({
    method: 'post',
    path: '/word-styles/import',
    roles: MAKERS,
    summary: 'Bring word styles in from JSON or CSV; those whose name is there already stay as they are',
    upload: 'file',
    response: wordStylesImportedSchema,
    handle: async ({ context, req, res, person }) => importWordStyles(context, (await readUpload(req, res)).bytes, person.id),
  }),
  route({
    method: 'patch',
    path: '/word-styles/:id',
    roles: MAKERS,
    summary: 'Change a word style (If-Match: its revision); looks keep the phrases they took in',
    body: wordStyleInputSchema,
    response: wordStyleSchema,
    async handle({ context, req, params, body, person }) {
      const revision = readIfMatch(req);
      const before = await oneWordStyle(context, params.id);
      checkSays(body);
      try {
        const [result] = await context.db
          .update(wordStyles)
          .set({ ...body, grade: body.grade ?? null, revision: revision + 1 })
          .where(and(eq(wordStyles.id, params.id), eq(wordStyles.revision, revision)));
        if (result.affectedRows === 0)
          throw new ProblemError(
            'changedMeanwhile',
            `Someone changed “${before.name}” meanwhile. Look at theirs, then change it again.`,
          );
      } catch (error) {
        throw isDuplicate(error) ? sameName(body.name) : error;
      }
      await context.events.add(context.db, 'wordStylesChanged', params.id, person.id);
      return oneWordStyle(context, params.id);
    },
  }),
  route({
    method: 'delete',
    path: '/word-styles/:id',
    roles: MAKERS,
    summary: 'Put a word style away; looks keep the phrases they took in',
    status: 204,
    async handle({ context, params, person }) {
      const [result] = await context.db.delete(wordStyles).where(eq(wordStyles.id, params.id));
      if (result.affectedRows === 0) throw new ProblemError('notFound', 'This word style is put away already.');
      await context.events.add(context.db, 'wordStylesChanged', params.id, person.id);
    },
  }),
];
