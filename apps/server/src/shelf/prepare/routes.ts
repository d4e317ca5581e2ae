import { keptTreatmentSchema, referenceSchema, treatmentInputSchema, variantInputSchema } from '@zinc/contract';
import { isIdle, isUntreated, PREPARE_VERSION } from '@zinc/core';
import { asc, eq } from 'drizzle-orm';
import { array, object } from 'yup';
import { uuidv7 } from 'uuidv7';
import type { Context } from '../../context.ts';
import { isDuplicate } from '../../db/connect.ts';
import { ProblemError } from '../../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../../http/route.ts';
import { people } from '../../people/tables.ts';
import { findPicture, recordPicture } from '../pictures.ts';
import { addReference, oneReference } from '../service.ts';
import { treatments } from '../tables.ts';

async function selectTreatments(context: Context) {
  return context.db
    .select({ id: treatments.id, name: treatments.name, settings: treatments.settings, addedBy: people.name })
    .from(treatments)
    .innerJoin(people, eq(people.id, treatments.addedBy))
    .orderBy(asc(treatments.name));
}

export const prepareRoutes = [
  route({
    method: 'post',
    path: '/references/:id/variants',
    roles: MAKERS,
    summary: 'Make a variant of a reference: prepared, measured and kept beside it; the original stays as it is',
    body: variantInputSchema,
    status: 201,
    response: referenceSchema,
    async handle({ context, params, body, person }) {
      const of = await oneReference(context, params.id);
      const { preparation } = body;
      if (isIdle(preparation))
        throw new ProblemError(
          'badInput',
          'These settings change nothing. Crop, cut, paint out, recolour or treat something first.',
          {
            field: 'preparation',
          },
        );
      const picture = await findPicture(context, of.picture.sha256);
      if (!picture) throw new ProblemError('notFound', 'The picture of this reference is gone.');
      const made = await context.pictures.run({ kind: 'variant', bytes: await context.store.read(picture.working), preparation });
      if (!made.ok)
        throw new ProblemError('badInput', made.reason, { field: made.part ? `preparation.${made.part}` : 'preparation' });
      const sha256 = await context.store.put(made.working);
      await recordPicture(context.db, sha256, sha256, made.working.length, made);
      const { shelf, credit, licence, licenceEnds } = of;
      const id = await addReference(context, person.id, sha256, {
        name: body.name,
        shelf,
        credit,
        licence,
        licenceEnds,
        parentId: of.id,
        origin: { kind: 'variant', of: of.id, name: of.name, version: PREPARE_VERSION, preparation },
      });
      return oneReference(context, id);
    },
  }),
  route({
    method: 'get',
    path: '/treatments',
    roles: EVERYONE,
    summary: 'Kept treatments by name',
    response: object({ items: array(keptTreatmentSchema.required()).required() }),
    handle: async ({ context }) => ({ items: await selectTreatments(context) }),
  }),
  route({
    method: 'post',
    path: '/treatments',
    roles: MAKERS,
    summary: 'Keep the settings of a treatment under a name',
    body: treatmentInputSchema,
    status: 201,
    response: keptTreatmentSchema,
    async handle({ context, body, person }) {
      if (isUntreated(body.settings))
        throw new ProblemError('badInput', 'This treatment changes nothing. Move a slider first.', { field: 'settings' });
      const id = uuidv7();
      try {
        await context.db.insert(treatments).values({ id, ...body, addedBy: person.id, addedAt: new Date() });
      } catch (error) {
        if (!isDuplicate(error)) throw error;
        throw new ProblemError('inTheWay', `There is a treatment called “${body.name}” already. Give this one another name.`, {
          field: 'name',
        });
      }
      return { id, ...body, addedBy: person.name };
    },
  }),
  route({
    method: 'delete',
    path: '/treatments/:id',
    roles: MAKERS,
    summary: 'Put a treatment away; variants made with it stay as they are',
    status: 204,
    async handle({ context, params }) {
      const [result] = await context.db.delete(treatments).where(eq(treatments.id, params.id));
      if (result.affectedRows === 0) throw new ProblemError('notFound', 'This treatment is put away already.');
    },
  }),
];
