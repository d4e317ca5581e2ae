import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { capabilitiesSchema, isProblem, type Capabilities, type CheckResult, type Render } from '@zinc/contract';
import { encodeWorkingCopy, hashPixels, decodeWorkingCopy, neutralStyle, type Ticket, drawMask, likeness } from '@zinc/core';
import { createPress } from '../src/app.ts';
import { Renders } from '../src/renders.ts';

/*
 * The conformance suite of the press contract. It tests the stand-in, or any press: set ZINC_CONFORM_URL and ZINC_CONFORM_TOKEN.
 * Misbehaviour on demand is the stand-in's own and is skipped for others.
 */
const foreign = process.env.ZINC_CONFORM_URL;
let base = foreign ?? '';
let token = process.env.ZINC_CONFORM_TOKEN ?? 'conformance';
let server: Server | null = null;
let renders: Renders | null = null;
let folder = '';
let said: Capabilities;

const call = (
  method: string,
  path: string,
  options: { body?: unknown; raw?: Uint8Array; headers?: Record<string, string>; token?: string } = {},
): Promise<Response> =>
  fetch(`${base}${path}`, {
    method,
    headers: {
      authorization: `Bearer ${options.token ?? token}`,
      ...(options.body === undefined ? {} : { 'content-type': 'application/json' }),
      ...options.headers,
    },
    body: options.raw ? Buffer.from(options.raw) : options.body === undefined ? undefined : JSON.stringify(options.body),
  });

function ticket(change: Partial<Ticket> = {}): Ticket {
  return {
    ticket: 1,
    press: { id: 'p', name: said.name, version: said.version, model: said.models[0] },
    text: { parts: [], final: `a ${said.draws[0]}`, avoid: [], lettering: [] },
    subject: { id: 's', label: 'One', wording: said.draws[0], identity: 0 },
    contents: [],
    look: {
      id: 'l',
      version: 1,
      name: 'Plain',
      mixer: 1,
      measure: 1,
      style: { ...neutralStyle(), amounts: { ...neutralStyle().amounts, flat: 0.8, smooth: 2 } },
    },
    format: { name: 'small', width: 96, height: 96, fit: 'crop' },
    never: [],
    seed: 11,
    take: 1,
    settings: { strength: 70 },
    parents: [],
    ...change,
  };
}

let keys = 0;
const newKey = (): string => `conformance-${process.pid}-${Date.now()}-${keys++}`;
const order = (t: unknown, key: string): Promise<Response> =>
  call('POST', '/v1/renders', { body: { ticket: t }, headers: { 'idempotency-key': key } });

async function finished(id: string): Promise<Render> {
  for (let i = 0; i < 400; i++) {
    const render = (await (await call('GET', `/v1/renders/${id}`)).json()) as Render;
    if (!['waiting', 'painting'].includes(render.state)) return render;
    await new Promise(r => setTimeout(r, 50));
  }
  throw new Error('The render did not finish within 20 seconds.');
}

async function imageOf(t: Ticket, key = newKey()): Promise<{ bytes: Buffer; hash: string }> {
  const { id } = (await (await order(t, key)).json()) as Render;
  expect((await finished(id)).state).toBe('made');
  const response = await call('GET', `/v1/renders/${id}/image`);
  expect(response.headers.get('content-type')).toContain('image/png');
  const bytes = Buffer.from(await response.arrayBuffer());
  return { bytes, hash: hashPixels(decodeWorkingCopy(bytes)) };
}

async function expectProblem(response: Response, status: number): Promise<void> {
  expect(response.status).toBe(status);
  expect(response.headers.get('content-type')).toContain('application/problem+json');
  expect(isProblem(await response.json())).toBeTrue();
}

describe('press contract', () => {
  beforeAll(async () => {
    jasmine.DEFAULT_TIMEOUT_INTERVAL = 60_000;
    if (!foreign) {
      folder = mkdtempSync(join(tmpdir(), 'zinc-press-'));
      token = 'conformance';
      renders = new Renders(folder, 2);
      server = createServer(createPress(renders, { token, mayMisbehave: true }));
      await new Promise<void>(resolve => server!.listen(0, '127.0.0.1', resolve));
      base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    }
    said = capabilitiesSchema.validateSync(await (await call('GET', '/v1/capabilities')).json());
  });
  afterAll(async () => {
    server?.closeAllConnections();
    server?.close();
    await renders?.close();
    if (folder) rmSync(folder, { recursive: true, force: true });
  });

  it('opens to its token only', async () => {
    await expectProblem(await call('GET', '/v1/capabilities', { token: 'wrong' }), 401);
    await expectProblem(await call('POST', '/v1/renders', { token: '', body: {} }), 401);
  });
  it('says what it is and which settings it takes', () => {
    expect(said.settings.map(s => s.key)).toContain('strength');
    for (const s of said.settings) if (s.type === 'percent') expect(Number(s.default)).toBeLessThanOrEqual(100);
  });
  it('answers a check for every ticket it is asked about, and foresees what it cannot draw', async () => {
    const check = (key: string, wording: string) => ({
      key,
      wording,
      text: wording,
      contents: [],
      settings: { strength: 50, sparkle: 3 },
    });
    const response = await call('POST', '/v1/checks', {
      body: { checks: [check('a', said.draws[0]), check('b', 'a thing nobody has ever heard of')] },
    });
    const { results } = (await response.json()) as { results: CheckResult[] };
    expect(results.map(r => [r.key, r.verdict])).toEqual([
      ['a', 'drawable'],
      ['b', 'notDrawn'],
    ]);
    expect(results[0].ignoredSettings).toContain('sparkle');
  });
  it('makes an image of the size that was asked', async () => {
    const { bytes } = await imageOf(ticket({ format: { name: 'wide', width: 128, height: 80, fit: 'crop' } }));
    const picture = decodeWorkingCopy(bytes);
    expect([picture.width, picture.height]).toEqual([128, 80]);
  });
  it('gives the same render for the same key, however often it is ordered', async () => {
    const key = newKey();
    const responses = await Promise.all([order(ticket(), key), order(ticket(), key), order(ticket(), key)]);
    expect(responses.map(r => r.status)).toEqual([202, 202, 202]);
    const ids = await Promise.all(responses.map(async r => ((await r.json()) as Render).id));
    expect(new Set(ids).size).toBe(1);
    await finished(ids[0]);
    expect(((await (await order(ticket(), key)).json()) as Render).id).toBe(ids[0]);
  });
  it('gives the same pixels for the same ticket under another key, when it says it is repeatable', async () => {
    if (!said.repeatable) return pending('this press is not repeatable');
    const [one, two, other] = [await imageOf(ticket()), await imageOf(ticket()), await imageOf(ticket({ seed: 12 }))];
    expect(two.hash).toBe(one.hash);
    expect(other.hash).not.toBe(one.hash);
  });
  it('restyles a picture that was brought, and keeps it unchanged at strength 0', async () => {
    const data = Uint8ClampedArray.from({ length: 96 * 96 * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * 31) % 256));
    const bytes = encodeWorkingCopy({ width: 96, height: 96, data });
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const contents: Ticket['contents'] = [{ sha256, strength: 100, read: 'areas' }];
    if (!foreign) await expectProblem(await order(ticket({ contents }), newKey()), 422);
    expect((await call('HEAD', `/v1/inputs/${sha256}`)).status).toBe(404);
    expect((await call('PUT', `/v1/inputs/${sha256}`, { raw: bytes })).status).toBe(204);
    expect((await call('HEAD', `/v1/inputs/${sha256}`)).status).toBe(200);
    const { hash } = await imageOf(ticket({ contents, settings: { strength: 0 } }));
    expect(hash).toBe(hashPixels({ width: 96, height: 96, data }));
  });
  it('lays a mark exactly where it is asked, over whatever it painted, when it says it can', async () => {
    if (!said.abilities.includes('marks')) return;
    const data = Uint8ClampedArray.from({ length: 20 * 20 * 4 }, (_, i) => [12, 200, 34, 255][i % 4]);
    const bytes = encodeWorkingCopy({ width: 20, height: 20, data });
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    expect((await call('PUT', `/v1/inputs/${sha256}`, { raw: bytes })).status).toBe(204);
    const { bytes: png } = await imageOf(ticket({ marks: [{ sha256, box: { x: 0.5, y: 0.5, width: 0.5, height: 0.5 } }] }));
    const picture = decodeWorkingCopy(png);
    const at = (Math.round(0.75 * picture.height) * picture.width + Math.round(0.75 * picture.width)) * 4;
    expect([...picture.data.subarray(at, at + 3)]).toEqual([12, 200, 34]);
  });
  it('refuses every setting it declares outside its range, at the field', async () => {
    for (const { key, type } of said.settings) {
      if (type !== 'percent') continue;
      const response = await order(ticket({ settings: { strength: 70, [key]: 400 } }), newKey());
      expect(response.status).withContext(key).toBe(400);
      expect(((await response.json()) as { field?: string }).field).toBe(`ticket.settings.${key}`);
    }
  });
  it('leaves areas clear, when it says it can', async () => {
    if (!said.abilities.includes('clearArea')) return;
    const clear = [{ x: 0, y: 0, width: 1, height: 0.3 }];
    const { bytes } = await imageOf(
      ticket({ format: { name: 'small', width: 96, height: 96, fit: 'crop', clear }, settings: { strength: 100 } }),
    );
    const { data, width } = decodeWorkingCopy(bytes);
    const top = new Set(Array.from({ length: width * 20 }, (_, i) => data.slice(i * 4, i * 4 + 3).join()));
    expect(top.size).toBe(1);
  });
  it('does a region anew and nothing beyond it, when it says it can', async () => {
    if (!said.abilities.includes('mask')) return;
    const bring = async (bytes: Uint8Array): Promise<string> => {
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      expect((await call('PUT', `/v1/inputs/${sha256}`, { raw: bytes })).status).toBe(204);
      return sha256;
    };
    const before = await imageOf(ticket());
    const own = decodeWorkingCopy(before.bytes);
    const mask = drawMask(own.width, own.height, [{ points: [0.5, 0.5], size: 0.25 }]);
    const [picture, region] = [await bring(before.bytes), await bring(encodeWorkingCopy(mask))];
    for (const how of ['remove', 'again'] as const) {
      const after = decodeWorkingCopy((await imageOf(ticket({ retouch: { picture, mask: region, how, seed: 7 } }))).bytes);
      const differs = (x: number, y: number): boolean =>
        [0, 1, 2].some(c => own.data[(y * own.width + x) * 4 + c] !== after.data[(y * own.width + x) * 4 + c]);
      const rim = Math.round(own.width * 0.3);
      let beyond = 0;
      for (let y = 0; y < own.height; y++)
        for (let x = 0; x < own.width; x++)
          if (Math.hypot(x - own.width / 2, y - own.height / 2) > rim && differs(x, y)) beyond++;
      expect(beyond).withContext(how).toBe(0);
    }
    const wrong = await order(ticket({ retouch: { picture, mask: region, how: 'wipe' as 'remove', seed: 7 } }), newKey());
    expect(wrong.status).toBe(400);
    expect(((await wrong.json()) as { field?: string }).field).toBe('ticket.retouch.how');
  });
  it('makes offshoots, the farther the less alike, when it says it can', async () => {
    if (!said.abilities.includes('offshoot')) return;
    const own = decodeWorkingCopy((await imageOf(ticket())).bytes);
    const at = async (distance: number): Promise<number> =>
      likeness(own, decodeWorkingCopy((await imageOf(ticket({ offshoots: [{ seed: 99, distance }] }))).bytes));
    const [near, far] = [await at(3), await at(100)];
    expect(far).toBeLessThan(near);
    const wrong = await order(ticket({ offshoots: [{ seed: 1, distance: 400 }] }), newKey());
    expect(((await wrong.json()) as { field?: string }).field).toBe('ticket.offshoots.0.distance');
  });
  it('refuses an input whose bytes are not what its address says', async () => {
    await expectProblem(await call('PUT', `/v1/inputs/${'0'.repeat(64)}`, { raw: new Uint8Array([1, 2, 3]) }), 400);
  });
  it('refuses tickets it cannot carry out, at the field', async () => {
    for (const [wrong, field] of [
      [ticket({ format: { name: 'huge', width: 9_000_000, height: 96, fit: 'crop' } }), 'ticket.format.width'],
      [ticket({ settings: { strength: 400 } }), 'ticket.settings.strength'],
      [{ ticket: 99 }, 'ticket'],
      [null, 'ticket'],
    ] as const) {
      const response = await order(wrong, newKey());
      expect(response.status).toBe(400);
      expect(((await response.json()) as { field?: string }).field).toBe(field);
    }
    await expectProblem(await call('POST', '/v1/renders', { body: { ticket: ticket() } }), 400);
  });
  it('fails honestly on what it cannot draw, for good', async () => {
    const { id } = (await (
      await order(ticket({ subject: { id: 's', label: 'x', wording: 'tandem bicycle', identity: 0 } }), newKey())
    ).json()) as Render;
    const render = await finished(id);
    expect(render.state).toBe('failed');
    expect(render.problem).toEqual(jasmine.objectContaining({ mayRetry: false }));
    expect(render.problem!.detail).toContain('tandem bicycle');
  });
  it('cancels what has not begun', async () => {
    const many = await Promise.all(
      Array.from(
        { length: 6 },
        async (_, i) =>
          (await (
            await order(ticket({ seed: 500 + i, format: { name: 'm', width: 512, height: 512, fit: 'crop' } }), newKey())
          ).json()) as Render,
      ),
    );
    const last = many[5];
    expect(((await (await call('DELETE', `/v1/renders/${last.id}`)).json()) as Render).state).toBe('cancelled');
    expect((await finished(last.id)).state).toBe('cancelled');
    await Promise.all(many.slice(0, 5).map(m => finished(m.id)));
  });
  it('knows nothing of renders it never had', async () => {
    await expectProblem(await call('GET', '/v1/renders/nothing'), 404);
    await expectProblem(await call('GET', '/v1/renders/nothing/image'), 404);
    await expectProblem(await call('GET', '/v2/anything'), 404);
  });

  describe('misbehaviour of the stand-in', () => {
    const misbehave = async (how: string, times = 1): Promise<number> =>
      (await call('POST', '/v1/misbehave', { body: { how, times } })).status;
    it('is off unless asked for at the start', async () => {
      if (foreign) return pending('not the stand-in');
      const strict = createServer(createPress(renders!, { token, mayMisbehave: false }));
      await new Promise<void>(resolve => strict.listen(0, '127.0.0.1', resolve));
      const response = await fetch(`http://127.0.0.1:${(strict.address() as AddressInfo).port}/v1/misbehave`, {
        method: 'POST',
        headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
        body: '{"how":"cut","times":1}',
      });
      expect(response.status).toBe(403);
      strict.close();
    });
    it('can fail, cut, break a picture and be slow, each as often as asked', async () => {
      if (foreign) return pending('not the stand-in');
      expect(await misbehave('error')).toBe(204);
      expect((await order(ticket(), newKey())).status).toBe(500);
      const { id } = (await (await order(ticket(), newKey())).json()) as Render;
      await finished(id);
      await misbehave('cut');
      await expectAsync(call('GET', `/v1/renders/${id}/image`)).toBeRejected();
      await misbehave('brokenPicture');
      const broken = Buffer.from(await (await call('GET', `/v1/renders/${id}/image`)).arrayBuffer());
      expect(() => decodeWorkingCopy(broken)).toThrowError();
      expect(() => decodeWorkingCopy(Buffer.alloc(0))).toThrowError();
      await misbehave('slow');
      const started = Date.now();
      expect((await order(ticket(), newKey())).status).toBe(202);
      expect(Date.now() - started).toBeGreaterThan(1200);
      expect(await misbehave('sulk')).toBe(400);
    });
  });
});
