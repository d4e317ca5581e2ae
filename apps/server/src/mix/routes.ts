import { lookInputSchema, lookSchema, lookVersionInputSchema, lookVersionSchema } from '@zinc/contract';
import { array, object } from 'yup';
import { readIfMatch } from '../http/ifMatch.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { addVersion, createLook, oneLook, oneVersion, selectLooks } from './service.ts';

export const lookRoutes = [
  route({
    method: 'get',
    path: '/looks',
    roles: EVERYONE,
    summary: 'Looks, newest first, each with its newest version',
    response: object({ items: array(lookSchema.required()).required() }),
    handle: async ({ context }) => ({ items: await selectLooks(context) }),
  }),
  route({
    method: 'post',
    path: '/looks',
    roles: MAKERS,
    summary: 'Save a new look as version 1',
    body: lookInputSchema,
    response: lookSchema,
    status: 201,
    async handle({ context, body, person }) {
      const { name, begunFrom, ...input } = body;
      return oneLook(context, await createLook(context, name, input, person.id, begunFrom));
    },
  }),
  route({
    method: 'get',
    path: '/looks/:id',
    roles: EVERYONE,
    summary: 'One look',
    response: lookSchema,
    handle: ({ context, params }) => oneLook(context, params.id),
  }),
  route({
    method: 'get',
    path: '/looks/:id/versions/:version',
    roles: EVERYONE,
    summary: 'One version of a look, as it was saved',
    response: lookVersionSchema,
    handle: ({ context, params }) => oneVersion(context, params.id, Number(params.version)),
  }),
  route({
    method: 'post',
    path: '/looks/:id/versions',
    roles: MAKERS,
    summary: 'Save the next version of a look (If-Match: the version it starts from)',
    body: lookVersionInputSchema,
    response: lookSchema,
    status: 201,
    async handle({ context, req, params, body, person }) {
      await addVersion(context, params.id, readIfMatch(req), body, person.id);
      return oneLook(context, params.id);
    },
  }),
];
