import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Problem, Reference } from '@zinc/contract';
import { decodeWorkingCopy } from '@zinc/core';
import sharp from 'sharp';
import { zlibSync } from 'fflate';
import { pictureFile, startTestHouse, type TestHouse } from './harness.ts';

/** A PNG that claims huge sides in a few bytes. */
function bombPng(width: number, height: number): Buffer {
  const crcTable = Array.from({ length: 256 }, (_, n) => {
    let c = n;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    return c >>> 0;
  });
  const crc = (b: Buffer): number => ~b.reduce((c, v) => crcTable[(c ^ v) & 255] ^ (c >>> 8), 0xffffffff) >>> 0;
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc(body), body.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', head),
    chunk('IDAT', Buffer.from(zlibSync(new Uint8Array(1000)))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('shelf', () => {
  let house: TestHouse;
  const bring = (bytes: Buffer, name: string) => house.agents.lead.post('/api/references').attach('file', bytes, name);
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 90_000;
    house = await startTestHouse();
  });
  afterAll(() => house.close());

  it('takes JPEG, PNG and WebP, measures each, and keeps a lossless working copy', async () => {
    for (const [n, type] of (['jpeg', 'png', 'webp'] as const).entries()) {
      const { body } = (await bring(
        await pictureFile(n + 10, type, 600, 400),
        `Hedge ${n}.${type === 'jpeg' ? 'jpg' : type}`,
      ).expect(201)) as { body: Reference };
      expect([body.picture.width, body.picture.height]).toEqual([600, 400]);
      expect(body.name).toBe(`Hedge ${n}`);
      expect(body.palette.length).toBeGreaterThan(1);
      const working = await house.agents.lead
        .get(`/api/pictures/${body.picture.sha256}/working`)
        .responseType('blob')
        .expect(200);
      const picture = decodeWorkingCopy(working.body as Buffer);
      expect([picture.width, picture.height]).toEqual([600, 400]);
      const thumb = await house.agents.lead
        .get(`/api/pictures/${body.picture.sha256}/thumb?side=150`)
        .responseType('blob')
        .expect(200);
      expect((await sharp(thumb.body as Buffer).metadata()).width).toBe(160);
    }
  });
  it('keeps a name of any script', async () => {
    const { body } = (await bring(await pictureFile(30), 'Mûre & ружа 薔薇.png').expect(201)) as { body: Reference };
    expect(body.name).toBe('Mûre & ружа 薔薇');
  });
  it('refuses, with the reason and the name, what cannot be used', async () => {
    const png = await pictureFile(40);
    const cases: [Buffer, string, number, RegExp][] = [
      [Buffer.from('hello, I am not a picture'), 'note.png', 415, /note\.png: It is not a picture/],
      [Buffer.alloc(0), 'empty.png', 415, /empty\.png/],
      [png.subarray(0, Math.floor(png.length * 0.6)), 'cut.png', 415, /cut\.png: It is cut short/],
      [await pictureFile(41, 'jpeg'), 'liar.png', 415, /liar\.png: Its name says PNG but inside it is JPEG/],
      [bombPng(30_000, 30_000), 'bomb.png', 415, /30000 × 30000 pixels; at most 80 million/],
      [Buffer.alloc(60 * 1024 * 1024, 7), 'heavy.png', 413, /larger than 50 MB/],
      [Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><rect width="1"'), 'torn.svg', 415, /torn\.svg/],
    ];
    const before = ((await house.agents.lead.get('/api/references')).body as { items: unknown[] }).items.length;
    for (const [bytes, name, status, reason] of cases) {
      const { body } = (await bring(bytes, name).expect(status)) as { body: Problem };
      expect(body.detail).toMatch(reason);
      expect(body.field).toBe('file');
    }
    expect(((await house.agents.lead.get('/api/references')).body as { items: unknown[] }).items.length).toBe(before);
    await bring(await pictureFile(42), 'still works.png').expect(201);
  });
  it('leaves no half-written file behind', () => {
    const left = readdirSync(join(house.data, 'house'), { recursive: true }) as string[];
    expect(left.filter(f => f.endsWith('.part'))).toEqual([]);
  });
  it('does not let an SVG reach out or run scripts', async () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="300" height="300"><script>alert(1)</script><image xlink:href="file:///etc/passwd" width="300" height="300"/><circle cx="150" cy="150" r="100" fill="#8e2a4b"/></svg>`;
    const { body } = (await bring(Buffer.from(svg), 'drawn.svg').expect(201)) as { body: Reference };
    const working = await house.agents.lead.get(`/api/pictures/${body.picture.sha256}/working`).expect(200);
    expect(working.headers['content-type']).toContain('image/png');
  });
  it('tells when the same picture is there already, and as what', async () => {
    const bytes = await pictureFile(50);
    await bring(bytes, 'first.png').expect(201);
    const { body } = (await bring(bytes, 'second.png').expect(409)) as { body: Problem };
    expect(body.detail).toContain('“first”');
  });
  it('changes what is written about a reference, and tells the second of two writers', async () => {
    const { body } = (await bring(await pictureFile(60), 'shared.png').expect(201)) as { body: Reference };
    const change = (agent: TestHouse['anyone'], revision: number, patch: object) =>
      agent.patch(`/api/references/${body.id}`).set('if-match', `"${revision}"`).send(patch);
    const { body: changed } = (await change(house.agents.lead, 1, {
      credit: 'R. Vance',
      licenceEnds: '2026-12-05',
      grade: 7,
    }).expect(200)) as { body: Reference };
    expect([changed.credit, changed.licenceEnds, changed.grade, changed.revision]).toEqual(['R. Vance', '2026-12-05', 7, 2]);
    const { body: told } = (await change(house.agents.designer, 1, { credit: 'Somebody else' }).expect(412)) as { body: Problem };
    expect(told.detail).toContain('shared');
    expect(((await change(house.agents.lead, 2, { grade: 11 }).expect(400)).body as Problem).field).toBe('grade');
    expect(((await change(house.agents.lead, 2, { licenceEnds: 'soon' }).expect(400)).body as Problem).field).toBe('licenceEnds');
    await house.agents.lead.patch(`/api/references/${body.id}`).send({ credit: 'x' }).expect(400);
    await change(house.agents.lead, 2, { state: 'put away' }).expect(200);
    const { items } = (await house.agents.lead.get('/api/references')).body as { items: Reference[] };
    expect(items.find(r => r.id === body.id)).toBeUndefined();
  });
  it('gives the shelf page by page, each thing once', async () => {
    const seen: string[] = [];
    for (let after = ''; ;) {
      const { items, next } = (await house.agents.lead.get(`/api/references?state=all${after ? `&after=${after}` : ''}`))
        .body as { items: Reference[]; next: string | null };
      seen.push(...items.map(r => r.id));
      if (!next) break;
      after = next;
    }
    expect(new Set(seen).size).toBe(seen.length);
  });
  it('has no picture under a name that is none', async () => {
    await house.agents.lead.get('/api/pictures/..%2f..%2fetc%2fpasswd/working').expect(404);
    await house.agents.lead.get(`/api/pictures/${'0'.repeat(64)}/thumb`).expect(404);
  });
  it('fetches nothing from inner addresses, and says so at the field', async () => {
    for (const url of ['http://127.0.0.1:3306/x.png', 'http://localhost/x.png', 'file:///etc/hosts', 'plums']) {
      const { body } = (await house.agents.lead.post('/api/references/from-address').send({ url }).expect(422)) as {
        body: Problem;
      };
      expect(body.field).withContext(url).toBe('url');
    }
    await house.agents.lead.post('/api/references/from-address').send({}).expect(400);
  });
});
