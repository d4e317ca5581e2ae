import { likeResultSchema, likeSchema, messageSchema, shelfNameSchema, shelfOrderSchema, type LikeInput } from '@zinc/contract';
import { MEASURE_VERSION, type Fingerprint } from '@zinc/core';
import { asc, eq } from 'drizzle-orm';
import { mixed, number, object, string } from 'yup';
import type { Context } from '../../context.ts';
import { ProblemError } from '../../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../../http/route.ts';
import { oneLook } from '../../mix/service.ts';
import { codeFingerprint } from '../codes/service.ts';
import { styleCodes } from '../codes/tables.ts';
import { fingerprintsOf } from '../service.ts';
import { shelves, styleReferences } from '../tables.ts';
import { readUpload } from '../upload.ts';

/** The fingerprint of what was asked about. Throws at the field when there is none. */
export async function askedFingerprint(context: Context, asked: Partial<LikeInput>): Promise<Fingerprint> {
  if (asked.fingerprint) {
    if (asked.fingerprint.measure !== MEASURE_VERSION)
      throw new ProblemError('badInput', 'This picture was measured by another version. Drop it again.', {
        field: 'fingerprint',
      });
    return asked.fingerprint;
  }
  if (asked.code) return codeFingerprint(context, asked.code);
  if (asked.lookId) {
    const { name, latest } = await oneLook(context, asked.lookId);
    if (!latest.target)
      throw new ProblemError('notPossible', `“${name}” has no measured target, so nothing can be near it.`, { field: 'lookId' });
    return latest.target;
  }
  const hash = asked.sha256 ?? '';
  const print = (await fingerprintsOf(context, [hash]))[hash];
  if (!print) throw new ProblemError('notFound', 'There is no such picture in the house.', { field: 'sha256' });
  return print;
}

async function shelfNames(context: Context): Promise<string[]> {
  const rows = await context.db.select().from(shelves).orderBy(asc(shelves.place), asc(shelves.name));
  return rows.map(r => r.name);
}

export const findRoutes = [
  route({
    method: 'post',
    path: '/shelf/like',
    roles: EVERYONE,
    summary: 'What is on the shelf by its distance from a picture, a look, a code or a fingerprint, nearest first',
    body: likeSchema,
    response: likeResultSchema,
    async handle({ context, body }) {
      try {
        return { items: await context.nearness.like(body.kind, await askedFingerprint(context, body), body.facets) };
      } catch (error) {
        // A fingerprint that a browser sends may be of any shape.
        if (body.fingerprint && error instanceof TypeError)
          throw new ProblemError('badInput', 'This is not a fingerprint.', { field: 'fingerprint' });
        throw error;
      }
    },
  }),
  route({
    method: 'post',
    path: '/pictures/measure',
    roles: EVERYONE,
    summary: 'Measure a picture without keeping it, to look for what is like it',
    upload: 'file',
    response: object({
      name: string().required(),
      width: number().required(),
      height: number().required(),
      fingerprint: mixed<Fingerprint>().required(),
    }),
    async handle({ context, req, res }) {
      const { name, bytes } = await readUpload(req, res);
      const taken = await context.pictures.run({ kind: 'intake', name, bytes });
      if (!taken.ok) throw new ProblemError('notAPicture', `${name}: ${taken.reason}`, { field: 'file' });
      return { name, width: taken.width, height: taken.height, fingerprint: taken.fingerprint };
    },
  }),
  route({
    method: 'get',
    path: '/shelves',
    roles: EVERYONE,
    summary: 'Named shelves in the order given by hand',
    response: shelfOrderSchema,
    handle: async ({ context }) => ({ names: await shelfNames(context) }),
  }),
  route({
    method: 'patch',
    path: '/shelves',
    roles: MAKERS,
    summary: 'Put the named shelves in order',
    body: shelfOrderSchema,
    response: shelfOrderSchema,
    async handle({ context, body, person }) {
      const names = [...new Set(body.names)];
      await context.db.transaction(async tx => {
        await tx.delete(shelves);
        if (names.length > 0) await tx.insert(shelves).values(names.map((name, place) => ({ name, place })));
        await context.events.add(tx, 'shelvesChanged', null, person.id);
      });
      return { names: await shelfNames(context) };
    },
  }),
  route({
    method: 'post',
    path: '/shelves/rename',
    roles: MAKERS,
    summary: 'Give a shelf another name; everything on it goes along. The name of another shelf puts the two together',
    body: shelfNameSchema,
    response: messageSchema,
    async handle({ context, body, person }) {
      const { from, to } = body;
      await context.db.transaction(async tx => {
        await tx.update(styleReferences).set({ shelf: to }).where(eq(styleReferences.shelf, from));
        await tx.update(styleCodes).set({ shelf: to }).where(eq(styleCodes.shelf, from));
        const [there] = await tx.select().from(shelves).where(eq(shelves.name, to));
        if (there) await tx.delete(shelves).where(eq(shelves.name, from));
        else await tx.update(shelves).set({ name: to }).where(eq(shelves.name, from));
        for (const kind of ['referenceChanged', 'codesChanged', 'shelvesChanged'])
          await context.events.add(tx, kind, null, person.id);
      });
      return { message: `“${from}” is “${to}” now.` };
    },
  }),
];
