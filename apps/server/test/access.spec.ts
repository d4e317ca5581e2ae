import Ajv from 'ajv/dist/2020.js';
import { isProblem, ROLES } from '@zinc/contract';
import { routes } from '../src/http/routes.ts';
import { PASSWORD, startTestHouse, stock, type Agent, type TestHouse } from './harness.ts';

describe('access', () => {
  let house: TestHouse;
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 90_000;
    house = await startTestHouse();
  });
  afterAll(() => house.close());

  const address = (path: string): string =>
    `/api${path
      .replace(/:version/, '1')
      .replace(/:sha/, 'a'.repeat(64))
      .replace(/:\w+/g, '01a20798-4ccd-7f37-a5b6-09b4b27239ff')}`;
  const send = (agent: Agent, method: string, path: string) =>
    (agent as unknown as Record<string, (p: string) => ReturnType<Agent['get']>>)
      [method](address(path))
      .send(method === 'get' ? undefined : {});

  it('every route is closed to those who are not signed in, unless it says otherwise', async () => {
    for (const r of routes) {
      if (r.roles === 'anyone') continue;
      const response = await send(house.anyone, r.method, r.path);
      expect(response.status).withContext(`${r.method} ${r.path}`).toBe(401);
      expect(response.headers['content-type']).toContain('application/problem+json');
    }
  });
  it('every route answers its roles and refuses the others, whatever is sent', async () => {
    for (const r of routes) {
      if (r.roles === 'anyone' || r.path === '/events') continue;
      for (const role of ROLES) {
        const { status } = await send(house.agents[role], r.method, r.path);
        if (r.roles.includes(role)) expect([401, 403]).withContext(`${role} ${r.method} ${r.path}`).not.toContain(status);
        else expect(status).withContext(`${role} ${r.method} ${r.path}`).toBe(403);
        expect(status).withContext(`${role} ${r.method} ${r.path}`).toBeLessThan(500);
      }
    }
  });
  it('signs in with the right password only, tells nothing of which was wrong, and changes the session id', async () => {
    const { email } = house.people.lead;
    const wrong = await house.anyone.post('/api/session').send({ email, password: 'no' }).expect(401);
    const nobody = await house.anyone.post('/api/session').send({ email: 'nobody@example.org', password: 'no' }).expect(401);
    expect(wrong.body).toEqual(nobody.body);
    const first = await house.anyone.post('/api/session').send({ email, password: PASSWORD }).expect(200);
    const second = await house.anyone.post('/api/session').send({ email, password: PASSWORD }).expect(200);
    const cookie = (r: typeof first): string => (r.headers['set-cookie'] as unknown as string[])[0].split(';')[0];
    expect(cookie(first)).not.toBe(cookie(second));
    expect((first.headers['set-cookie'] as unknown as string[])[0]).toMatch(/HttpOnly.*SameSite=Lax/i);
    await house.anyone.delete('/api/session').expect(204);
    await house.anyone.get('/api/house').expect(401);
  });
  it('keeps no password in the clear and never sends a hash', async () => {
    const [rows] = await house.server.context.pool.query('select password_hash from people');
    for (const { password_hash } of rows as { password_hash: string }[]) expect(password_hash).toMatch(/^\$argon2id\$/);
    expect(JSON.stringify((await house.agents.lead.get('/api/house')).body)).not.toContain('argon2');
  });
  it('refuses a first lead in a house that has people', async () => {
    const response = await house.anyone
      .post('/api/first-lead')
      .send({ name: 'Eve', email: 'eve@example.org', password: 'long enough password', house: 'Mine' })
      .expect(409);
    expect(isProblem(response.body)).toBeTrue();
  });
  it('refuses writes that come from another site', async () => {
    await house.agents.lead.post('/api/templates').set('origin', 'http://elsewhere.example').send({}).expect(403);
    await house.agents.lead.post('/api/templates').set('sec-fetch-site', 'cross-site').send({}).expect(403);
  });
  it('limits how often a sign-in may be tried', async () => {
    const { email } = house.people.designer;
    const statuses: number[] = [];
    for (let i = 0; i < 24; i++)
      statuses.push((await house.anyone.post('/api/session').send({ email, password: `guess ${i}` })).status);
    expect(statuses).toContain(429);
  });
  it('sends a strict content security policy and no trace of the framework', async () => {
    const { headers } = await house.agents.lead.get('/api/house');
    expect(headers['content-security-policy']).toContain("script-src 'self' 'wasm-unsafe-eval';");
    expect(headers['content-security-policy']).not.toContain("'unsafe-eval'");
    expect(headers['x-powered-by']).toBeUndefined();
    expect(headers['x-content-type-options']).toBe('nosniff');
  });
  it('answers unreadable and unknown requests with problems', async () => {
    const bad = await house.agents.lead
      .post('/api/templates')
      .set('content-type', 'application/json')
      .send('{"name": ')
      .expect(400);
    expect(isProblem(bad.body)).toBeTrue();
    const big = await house.agents.lead
      .post('/api/subjects/paste')
      .send({ text: 'x'.repeat(3_000_000) })
      .expect(413);
    expect((big.body as { code: string }).code).toBe('tooLarge');
    await house.agents.lead.get('/api/nowhere').expect(404);
  });

  describe('OpenAPI document', () => {
    it('lists every route', async () => {
      const { body } = (await house.anyone.get('/api/openapi.json').expect(200)) as {
        body: { openapi: string; paths: Record<string, Record<string, unknown>> };
      };
      expect(body.openapi).toBe('3.1.0');
      for (const r of routes)
        expect(body.paths[`/api${r.path.replace(/:(\w+)/g, '{$1}')}`]?.[r.method])
          .withContext(`${r.method} ${r.path}`)
          .toBeDefined();
      const ids = Object.values(body.paths).flatMap(p => Object.values(p).map(o => (o as { operationId: string }).operationId));
      expect(new Set(ids).size).toBe(ids.length);
    });
    it('describes what the server really answers', async () => {
      await stock(house.agents.lead);
      type Operation = { responses: Record<string, { content?: Record<string, { schema: object }> }> };
      const { body } = (await house.anyone.get('/api/openapi.json')) as { body: { paths: Record<string, { get?: Operation }> } };
      const ajv = new Ajv({ strict: false });
      for (const path of [
        '/api/session',
        '/api/house',
        '/api/references',
        '/api/looks',
        '/api/templates',
        '/api/subjects',
        '/api/runs',
      ]) {
        const schema = body.paths[path].get!.responses['200'].content!['application/json'].schema;
        const answer: unknown = (await house.agents.lead.get(path).expect(200)).body;
        expect(ajv.validate(schema, answer)).withContext(`${path}: ${ajv.errorsText()}`).toBeTrue();
        expect(ajv.validate(schema, { items: [{}] }))
          .withContext(`${path} takes anything`)
          .toBeFalse();
      }
    });
  });
});
