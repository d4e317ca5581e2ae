import { houseSchema } from '@zinc/contract';
import { createSession } from 'better-sse';
import { EVERYONE, route } from '../http/route.ts';
import { describeHouse } from './service.ts';

export const houseRoutes = [
  route({
    method: 'get',
    path: '/house',
    roles: EVERYONE,
    summary: 'The house: brand, campaigns, formats, presses, people',
    response: houseSchema,
    handle: ({ context }) => describeHouse(context),
  }),
  route({
    method: 'get',
    path: '/events',
    roles: EVERYONE,
    summary: 'Changes as they happen, as server-sent events',
    produces: 'text/event-stream',
    async handle({ context, req, res }) {
      context.events.listen(await createSession(req, res));
    },
  }),
];
