import {
  messageSchema,
  subjectInputSchema,
  subjectPasteSchema,
  subjectSchema,
  subjectsImportedSchema,
  templateInputSchema,
  templateSchema,
  unclearWordSchema,
} from '@zinc/contract';
import { and, eq } from 'drizzle-orm';
import { array, object } from 'yup';
import { isDuplicate } from '../db/connect.ts';
import { readIfMatch } from '../http/ifMatch.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { takeInPicture } from '../shelf/pictures.ts';
import { chainOf } from '../runs/chains.ts';
import { readUpload } from '../shelf/upload.ts';
import {
  addTemplateVersion,
  createTemplate,
  oneSubject,
  oneTemplate,
  pasteSubjects,
  selectSubjects,
  selectTemplates,
  selectVersions,
} from './service.ts';
import { unclearWords } from './meanings.ts';
import { importSubjects } from './subjectImport.ts';
import { subjects, templates } from './tables.ts';

const subjectList = object({ items: array(subjectSchema.required()).required() });

export const wordingRoutes = [
  route({
    method: 'get',
    path: '/templates',
    roles: EVERYONE,
    summary: 'Templates, each in its newest version',
    response: object({ items: array(templateSchema.required()).required() }),
    handle: async ({ context }) => ({ items: await selectTemplates(context) }),
  }),
  route({
    method: 'post',
    path: '/templates',
    roles: MAKERS,
    summary: 'Save a new template as version 1',
    body: templateInputSchema,
    response: templateSchema,
    status: 201,
    handle: async ({ context, body, person }) => oneTemplate(context, await createTemplate(context, body, person.id)),
  }),
  route({
    method: 'post',
    path: '/templates/:id/versions',
    roles: MAKERS,
    summary: 'Save the next version of a template (If-Match: the version it starts from)',
    body: templateInputSchema,
    response: templateSchema,
    status: 201,
    async handle({ context, req, params, body, person }) {
      await addTemplateVersion(context, params.id, readIfMatch(req), body, person.id);
      return oneTemplate(context, params.id);
    },
  }),
  route({
    method: 'get',
    path: '/templates/:id/versions',
    roles: EVERYONE,
    summary: 'Every version of a template, newest first',
    response: object({ items: array(templateSchema.required()).required() }),
    async handle({ context, params }) {
      const items = await selectVersions(context, eq(templates.id, params.id));
      if (items.length === 0) throw new ProblemError('notFound', 'This template is not in the house.');
      return { items };
    },
  }),
  route({
    method: 'get',
    path: '/templates/export',
    roles: EVERYONE,
    summary: 'The templates as JSON: sentences in Mustache form, slots, what is avoided',
    produces: 'application/json',
    async handle({ context, res }) {
      const list = (await selectTemplates(context)).map(({ name, version, text, avoid, slots }) => ({
        name,
        version,
        text,
        avoid,
        slots,
      }));
      res.setHeader('Content-Disposition', 'attachment; filename="templates.json"');
      res.json({ templates: list });
    },
  }),
  route({
    method: 'get',
    path: '/subjects',
    roles: EVERYONE,
    summary: 'Subjects, in the order they were added',
    response: subjectList,
    handle: async ({ context }) => ({ items: await selectSubjects(context) }),
  }),
  route({
    method: 'post',
    path: '/subjects/paste',
    roles: MAKERS,
    summary: 'Add a pasted list of subjects, one a line: label; wording',
    body: subjectPasteSchema,
    response: subjectList,
    status: 201,
    async handle({ context, body, person }) {
      const ids = new Set(await pasteSubjects(context, body.text, person.id));
      return { items: (await selectSubjects(context)).filter(s => ids.has(s.id)) };
    },
  }),
  route({
    method: 'get',
    path: '/subjects/unclear',
    roles: EVERYONE,
    summary: 'Subjects whose wording is a word with several meanings, of which none was chosen yet',
    response: object({ items: array(unclearWordSchema.required()).required() }),
    handle: async ({ context }) => ({ items: unclearWords(await selectSubjects(context)) }),
  }),
  route({
    method: 'post',
    path: '/subjects/import',
    roles: MAKERS,
    summary: 'Add the subjects of a CSV file: label, wording, avoid, colours, tags',
    upload: 'file',
    response: subjectsImportedSchema,
    status: 201,
    async handle({ context, req, res, person }) {
      return importSubjects(context, (await readUpload(req, res)).bytes, person.id);
    },
  }),
  route({
    method: 'patch',
    path: '/subjects/:id',
    roles: MAKERS,
    summary: 'Change a subject (If-Match: its revision)',
    body: subjectInputSchema,
    response: subjectSchema,
    async handle({ context, req, params, body, person }) {
      const revision = readIfMatch(req);
      await oneSubject(context, params.id);
      try {
        const [result] = await context.db
          .update(subjects)
          .set({ ...body, revision: revision + 1 })
          .where(and(eq(subjects.id, params.id), eq(subjects.revision, revision)));
        if (result.affectedRows === 0)
          throw new ProblemError(
            'changedMeanwhile',
            'Someone changed this subject meanwhile. Look at theirs, then change it again.',
          );
      } catch (error) {
        if (isDuplicate(error))
          throw new ProblemError('inTheWay', `There is a subject called “${body.label}” already.`, { field: 'label' });
        throw error;
      }
      await context.events.add(context.db, 'subjectChanged', params.id, person.id);
      return oneSubject(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/subjects/:id/picture',
    roles: MAKERS,
    summary: "Give a subject a picture of its own, which is restyled instead of drawing the subject's words",
    upload: 'file',
    response: subjectSchema,
    async handle({ context, req, res, params, person }) {
      await oneSubject(context, params.id);
      const { name, bytes } = await readUpload(req, res);
      const picture = await takeInPicture(context, name, bytes);
      const before = await oneSubject(context, params.id);
      await context.db
        .update(subjects)
        .set({ sha256: picture.sha256, revision: before.revision + 1 })
        .where(eq(subjects.id, params.id));
      await context.events.add(context.db, 'subjectChanged', params.id, person.id);
      return oneSubject(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/subjects/:id/picture/original',
    roles: MAKERS,
    summary:
      'Give a subject, whose picture is an image of ours, the picture that the first of them was made from; or none when it was drawn',
    response: subjectSchema,
    async handle({ context, params, person }) {
      const before = await oneSubject(context, params.id);
      const chain = before.picture ? await chainOf(context, before.picture.sha256) : null;
      if (!chain || chain.depth === 0)
        throw new ProblemError('notPossible', `The picture of ${before.label} is no image of ours, so there is none before it.`);
      await context.db
        .update(subjects)
        .set({ sha256: chain.original, revision: before.revision + 1 })
        .where(eq(subjects.id, params.id));
      await context.events.add(context.db, 'subjectChanged', params.id, person.id);
      return oneSubject(context, params.id);
    },
  }),
  route({
    method: 'delete',
    path: '/subjects/:id/picture',
    roles: MAKERS,
    summary: 'Take the picture of a subject away; the press draws its words again',
    response: subjectSchema,
    async handle({ context, params, person }) {
      const before = await oneSubject(context, params.id);
      await context.db
        .update(subjects)
        .set({ sha256: null, revision: before.revision + 1 })
        .where(eq(subjects.id, params.id));
      await context.events.add(context.db, 'subjectChanged', params.id, person.id);
      return oneSubject(context, params.id);
    },
  }),
  route({
    method: 'delete',
    path: '/subjects/:id',
    roles: MAKERS,
    summary: 'Put a subject away; runs it was in stay as they are',
    response: messageSchema,
    async handle({ context, params, person }) {
      const before = await oneSubject(context, params.id);
      await context.db.update(subjects).set({ state: 'put away' }).where(eq(subjects.id, params.id));
      await context.events.add(context.db, 'subjectChanged', params.id, person.id);
      return { message: `“${before.label}” is put away.` };
    },
  }),
];
