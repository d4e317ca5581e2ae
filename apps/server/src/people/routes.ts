import { firstLeadSchema, personSchema, sessionSchema, signInSchema, type Person } from '@zinc/contract';
import { promisify } from 'node:util';
import type { Context } from '../context.ts';
import { ProblemError } from '../http/problemError.ts';
import { route, type Call } from '../http/route.ts';
import { houseName, nameHouse } from '../house/service.ts';
import { addPerson, checkSignIn, isHouseEmpty } from './service.ts';

async function openSession({ req }: Pick<Call<unknown>, 'req'>, person: Person): Promise<void> {
  // A new session id at sign-in, so that one planted before it is worth nothing.
  await promisify(req.session.regenerate.bind(req.session))();
  req.session.personId = person.id;
}

async function describe(
  context: Context,
  person: Person | null,
): Promise<{ person: Person | null; houseEmpty: boolean; houseName: string | null }> {
  return { person, houseEmpty: person ? false : await isHouseEmpty(context), houseName: await houseName(context) };
}

export const peopleRoutes = [
  route({
    method: 'get',
    path: '/session',
    roles: 'anyone',
    summary: 'Who is signed in, and whether the house still waits for its first lead',
    response: sessionSchema,
    handle: ({ context, person }) => describe(context, person),
  }),
  route({
    method: 'post',
    path: '/session',
    roles: 'anyone',
    summary: 'Sign in',
    body: signInSchema,
    response: sessionSchema,
    async handle(call) {
      const { context, body } = call;
      const person = await checkSignIn(context, body.email, body.password);
      if (!person) throw new ProblemError('wrongSignIn', 'The address or the password is not right.', { field: 'password' });
      await openSession(call, person);
      return describe(context, person);
    },
  }),
  route({
    method: 'delete',
    path: '/session',
    roles: 'anyone',
    summary: 'Sign out',
    async handle({ req, res }) {
      await promisify(req.session.destroy.bind(req.session))();
      res.clearCookie('zinc.session');
    },
  }),
  route({
    method: 'post',
    path: '/first-lead',
    roles: 'anyone',
    summary: 'Open an empty house: name it and make its first lead',
    body: firstLeadSchema,
    response: personSchema,
    async handle(call) {
      const { context, body } = call;
      const person = await context.db.transaction(async tx => {
        if (!(await isHouseEmpty(context)))
          throw new ProblemError('inTheWay', 'This house already has its first lead. Sign in instead.');
        await nameHouse(tx, body.house);
        return addPerson(tx, body.name, body.email, 'lead', body.password);
      });
      await openSession(call, person);
      return person;
    },
  }),
];
