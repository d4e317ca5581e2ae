import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Person, PlanInput, Role, RunDetail, Subject, Template, Look, Reference, House } from '@zinc/contract';
import type { Fingerprint } from '@zinc/core';
import mysql from 'mysql2/promise';
import { pino } from 'pino';
import sharp from 'sharp';
import supertest from 'supertest';
import { createPress } from '../../press/src/app.ts';
import { Renders } from '../../press/src/renders.ts';
import { DEMO_PEOPLE } from '../src/demo/facts.ts';
import { houseName, nameHouse } from '../src/house/service.ts';
import { addPerson } from '../src/people/service.ts';
import { startServer, type RunningServer } from '../src/server.ts';
import type { Settings } from '../src/settings.ts';

/** A database of this test's own on the server that ZINC_TEST_DB names. */
export async function freshDatabase(): Promise<{ url: string; drop(): Promise<void> }> {
  const admin = process.env.ZINC_TEST_DB;
  if (!admin) throw new Error('Set ZINC_TEST_DB to a MariaDB with the right to make databases; npm test does that.');
  const name = `zinc_test_${randomBytes(6).toString('hex')}`;
  const run = async (sql: string): Promise<void> => {
    const connection = await mysql.createConnection(admin);
    await connection.query(sql);
    await connection.end();
  };
  await run(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
  return { url: `${admin.replace(/\/$/, '')}/${name}`, drop: () => run(`DROP DATABASE ${name}`) };
}

export interface TestPress {
  url: string;
  token: string;
  misbehave(how: string, times: number): Promise<void>;
  /** Takes the press off the network, and puts it back on the same port. */
  leave(): Promise<void>;
  comeBack(): Promise<void>;
  close(): Promise<void>;
}

/** A stand-in press in this process, on a port of its own. */
export async function startTestPress(): Promise<TestPress> {
  const folder = mkdtempSync(join(tmpdir(), 'zinc-press-'));
  const token = randomBytes(8).toString('hex');
  const renders = new Renders(folder, 2);
  const app = createPress(renders, { token, mayMisbehave: true });
  let port = 0;
  let server: Server;
  const listen = async (): Promise<void> => {
    server = createServer(app);
    await new Promise<void>(resolve => server.listen(port, '127.0.0.1', resolve));
    ({ port } = server.address() as AddressInfo);
  };
  const leave = async (): Promise<void> => {
    server.closeAllConnections();
    await new Promise<void>(resolve => server.close(() => resolve()));
  };
  await listen();
  return {
    url: `http://127.0.0.1:${port}`,
    token,
    leave,
    comeBack: listen,
    async misbehave(how, times) {
      await fetch(`http://127.0.0.1:${port}/v1/misbehave`, {
        method: 'POST',
        headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
        body: JSON.stringify({ how, times }),
      });
    },
    async close() {
      await leave().catch(() => undefined);
      await renders.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export type Agent = ReturnType<typeof supertest.agent>;

export interface TestHouse {
  server: RunningServer;
  press: TestPress;
  database: string;
  data: string;
  agents: Record<Role, Agent>;
  anyone: Agent;
  people: Record<Role, Person>;
  close(): Promise<void>;
}

/** What a kept picture measures. */
export async function fingerprintOf(agent: Agent, sha256: string): Promise<Fingerprint> {
  const { body } = await agent
    .post('/api/pictures/fingerprints')
    .send({ hashes: [sha256] })
    .expect(200);
  return (body as { items: Record<string, Fingerprint> }).items[sha256];
}

export const PASSWORD = 'furrow-and-frost';

/** Settings of a server in this process, with a press that is not left alone for long when it goes wrong. */
export function testSettings(press: TestPress, databaseUrl: string, data: string, overrides: Partial<Settings> = {}): Settings {
  return {
    port: 0,
    data,
    databaseUrl,
    pressUrl: press.url,
    pressToken: press.token,
    pressRest: 0.2,
    pressPatience: 120,
    secret: 'a secret for tests only',
    demo: 'off',
    log: 'silent',
    ...overrides,
  };
}

/** A small house with a lead, a designer and a reviewer, all signed in; no demo data. */
export async function startTestHouse(overrides: Partial<Settings> = {}): Promise<TestHouse> {
  const database = await freshDatabase();
  const press = await startTestPress();
  // The folder of a real house starts with a dot, which file servers treat differently.
  const data = mkdtempSync(join(tmpdir(), '.zinc-house-'));
  const settings = testSettings(press, database.url, data, overrides);
  const server = await startServer(settings, pino({ level: process.env.ZINC_TEST_LOG ?? 'silent' }), null);
  const base = `http://127.0.0.1:${server.port}`;
  const { db } = server.context;
  if ((await houseName(server.context)) === null) await nameHouse(db, 'Test house');
  const people = {} as Record<Role, Person>;
  const agents = {} as Record<Role, Agent>;
  for (const p of [DEMO_PEOPLE[0], DEMO_PEOPLE[1], DEMO_PEOPLE[3]]) {
    people[p.role] = await addPerson(db, p.name, p.email, p.role, PASSWORD);
    agents[p.role] = supertest.agent(base);
    await agents[p.role].post('/api/session').send({ email: p.email, password: PASSWORD }).expect(200);
  }
  return {
    server,
    press,
    database: database.url,
    data,
    agents,
    people,
    anyone: supertest.agent(base),
    async close() {
      await server.stop();
      await press.close();
      await database.drop();
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** A made-up picture as a file: stripes and a disc whose colours follow from the number. */
export async function pictureFile(n: number, type: 'png' | 'jpeg' | 'webp' = 'png', width = 480, height = 480): Promise<Buffer> {
  const colour = (k: number): string => `hsl(${(n * 67 + k * 120) % 360} 55% ${30 + ((n + k) % 4) * 14}%)`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#f3eee2"/><circle cx="45%" cy="50%" r="28%" fill="${colour(0)}"/><path d="M0 ${height * 0.8}h${width}" stroke="${colour(1)}" stroke-width="${10 + n * 3}"/></svg>`;
  return sharp(Buffer.from(svg)).toFormat(type).toBuffer();
}

export interface Stocked {
  references: Reference[];
  look: Look;
  template: Template;
  subjects: Subject[];
  house: House;
  plan: PlanInput;
}

/** Puts two references, a look, a template and three drawable subjects into a house, and a plan of two takes each at 320². */
export async function stock(lead: Agent): Promise<Stocked> {
  const references: Reference[] = [];
  for (const n of [1, 2])
    references.push(
      (
        await lead
          .post('/api/references')
          .attach('file', await pictureFile(n), `sample ${n}.png`)
          .expect(201)
      ).body as Reference,
    );
  const sources = references.map(r => ({
    kind: 'reference',
    id: r.id,
    name: r.name,
    sha256: r.picture.sha256,
    parts: 2,
    facets: ['colour', 'light', 'line', 'texture'],
  }));
  const look = (
    await lead
      .post('/api/looks')
      .send({ name: 'Sample look', sources, strength: 80, words: ['bold'], avoid: [], note: 'first' })
      .expect(201)
  ).body as Look;
  const template = (
    await lead
      .post('/api/templates')
      .send({ name: 'Plain', text: 'A {{subject}} on chalk', avoid: ['hands'], slots: [] })
      .expect(201)
  ).body as Template;
  const subjects = (
    (await lead.post('/api/subjects/paste').send({ text: 'Mark; the mark\nRadish; radish\nBeetroot; beetroot' }).expect(201))
      .body as { items: Subject[] }
  ).items;
  const house = (await lead.get('/api/house').expect(200)).body as House;
  const plan: PlanInput = {
    name: 'Sample run',
    subjectIds: subjects.map(s => s.id),
    lookIds: [look.id],
    templateId: template.id,
    fills: {},
    formatIds: [house.formats.find(f => f.name === 'Square 320')!.id],
    takes: 2,
    seedPolicy: 'subject',
    seed: 5,
    strength: null,
    pressId: house.presses[0].id,
    struckOut: [],
  };
  return { references, look, template, subjects, house, plan };
}

/** Waits until a run is in one of the states. */
export async function untilRun(agent: Agent, id: string, done: (d: RunDetail) => boolean, seconds = 60): Promise<RunDetail> {
  const end = Date.now() + seconds * 1000;
  for (;;) {
    const detail = (await agent.get(`/api/runs/${id}`).expect(200)).body as RunDetail;
    if (done(detail)) return detail;
    if (Date.now() > end)
      throw new Error(
        `After ${seconds} s the run is still ${detail.run.state}: ${detail.run.made} made, ${detail.run.failed} failed.`,
      );
    await new Promise(r => setTimeout(r, 150));
  }
}
