import { pressInputSchema, pressSchema } from '@zinc/contract';
import { array, object } from 'yup';
import type { Context } from '../context.ts';
import { LEADS, route } from '../http/route.ts';
import { addPress, changePress, listPresses } from './service.ts';

const response = object({ items: array(pressSchema.required()).required() });
const answer = async (context: Context): Promise<unknown> => ({ items: await listPresses(context) });

export const pressRoutes = [
  route({
    method: 'post',
    path: '/presses',
    roles: LEADS,
    summary: 'Add a press: it must answer at its address and take its token',
    body: pressInputSchema,
    response,
    status: 201,
    async handle({ context, body, person }) {
      await addPress(context, body, person.id);
      return answer(context);
    },
  }),
  route({
    method: 'put',
    path: '/presses/:id',
    roles: LEADS,
    summary: 'Change a press: name, address, token, images at once, price, whether it shares work, whether it is in use',
    body: pressInputSchema,
    response,
    async handle({ context, params, body, person }) {
      await changePress(context, params.id, body, person.id);
      return answer(context);
    },
  }),
];
