import {
  codeInputSchema,
  codePatchSchema,
  fingerprintsSchema,
  importPlanSchema,
  importPreviewSchema,
  importResultSchema,
  nearCodeSchema,
  nearestInputSchema,
  styleCodeSchema,
  undoResultSchema,
  type NearCode,
} from '@zinc/contract';
import type { Fingerprint } from '@zinc/core';
import { and, eq } from 'drizzle-orm';
import { array, object, string } from 'yup';
import { readIfMatch } from '../../http/ifMatch.ts';
import { ProblemError } from '../../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../../http/route.ts';
import { askedFingerprint } from '../find/routes.ts';
import { readUpload } from '../upload.ts';
import { exportCodes, importCodes, previewImport, undoImport } from './importing.ts';
import { addCode, codeFingerprint, codesAfter, oneCode, ownCode } from './service.ts';
import { styleCodes } from './tables.ts';

const PAGE = 1000;

export const codeRoutes = [
  route({
    method: 'get',
    path: '/codes',
    roles: EVERYONE,
    summary: 'Style codes, oldest first, a page at a time',
    query: ['after'],
    response: object({ items: array(styleCodeSchema.required()).required(), next: string().nullable().defined() }),
    async handle({ context, query }) {
      const items = await codesAfter(context, query.after, PAGE + 1);
      return { items: items.slice(0, PAGE), next: items.length > PAGE ? items[PAGE - 1].id : null };
    },
  }),
  route({
    method: 'post',
    path: '/codes',
    roles: MAKERS,
    summary: 'Keep a style code: an own one, or, with the name of its press, a foreign one',
    body: codeInputSchema,
    response: styleCodeSchema,
    status: 201,
    handle: async ({ context, body, person }) => oneCode(context, await addCode(context, body, person.id)),
  }),
  route({
    method: 'get',
    path: '/codes/export.csv',
    roles: EVERYONE,
    summary: 'Every style code as comma-separated values; it comes back in without loss',
    produces: 'text/csv',
    async handle({ context, res }) {
      res
        .type('text/csv')
        .setHeader('Content-Disposition', 'attachment; filename="style-codes.csv"')
        .send(await exportCodes(context));
    },
  }),
  route({
    method: 'post',
    path: '/codes/imports/preview',
    roles: MAKERS,
    summary: 'What a spreadsheet of codes holds and how it would be read; nothing is brought in',
    upload: 'file',
    response: importPreviewSchema,
    handle: async ({ req, res }) => previewImport((await readUpload(req, res)).bytes),
  }),
  route({
    method: 'post',
    path: '/codes/imports',
    roles: MAKERS,
    summary: 'Bring in a spreadsheet of codes as the field `plan` (JSON, sent before the file) says',
    upload: 'file',
    status: 201,
    response: importResultSchema,
    async handle({ context, req, res, person }) {
      const { name, bytes, fields } = await readUpload(req, res);
      let plan: unknown;
      try {
        plan = JSON.parse(fields.plan ?? '');
      } catch {
        throw new ProblemError('badInput', 'Say how the file is to be read: the field “plan” is missing.', { field: 'plan' });
      }
      return importCodes(context, name, bytes, await importPlanSchema.validate(plan), person.id);
    },
  }),
  route({
    method: 'delete',
    path: '/codes/imports/:id',
    roles: MAKERS,
    summary: 'Take an import back; codes changed since then stay',
    response: undoResultSchema,
    handle: ({ context, params, person }) => undoImport(context, params.id, person.id),
  }),
  route({
    method: 'post',
    path: '/codes/nearest',
    roles: EVERYONE,
    summary: 'The one own code, on the shelf or not, that comes closest to a picture or a look',
    body: nearestInputSchema,
    response: nearCodeSchema,
    async handle({ context, body }): Promise<NearCode> {
      const { code, drift } = await context.pictures.nearestCode(await askedFingerprint(context, body));
      const [kept] = await context.db
        .select({ id: styleCodes.id })
        .from(styleCodes)
        .where(and(eq(styleCodes.press, ''), eq(styleCodes.text, code)));
      return { text: code, id: kept?.id ?? null, distance: drift };
    },
  }),
  route({
    method: 'post',
    path: '/codes/fingerprints',
    roles: EVERYONE,
    summary: 'What own codes measure, by their text',
    body: object({ texts: array(string().required()).min(1).max(12, 'At most 12 codes at once').required() }),
    response: fingerprintsSchema,
    async handle({ context, body }) {
      const items: Record<string, Fingerprint> = {};
      for (const text of body.texts) items[ownCode(text)] = await codeFingerprint(context, text);
      return { items };
    },
  }),
  route({
    method: 'get',
    path: '/codes/:id',
    roles: EVERYONE,
    summary: 'One style code',
    response: styleCodeSchema,
    handle: ({ context, params }) => oneCode(context, params.id),
  }),
  route({
    method: 'patch',
    path: '/codes/:id',
    roles: MAKERS,
    summary: 'Change what is written about a code (If-Match: its revision)',
    body: codePatchSchema,
    response: styleCodeSchema,
    async handle({ context, req, params, body, person }) {
      const revision = readIfMatch(req);
      const before = await oneCode(context, params.id);
      const [result] = await context.db
        .update(styleCodes)
        .set({ ...body, revision: revision + 1 })
        .where(and(eq(styleCodes.id, params.id), eq(styleCodes.revision, revision)));
      if (result.affectedRows === 0)
        throw new ProblemError(
          'changedMeanwhile',
          `Someone changed “${before.name || before.text}” meanwhile. Look at theirs, then change it again.`,
        );
      await context.events.add(context.db, 'codesChanged', params.id, person.id);
      return oneCode(context, params.id);
    },
  }),
];
