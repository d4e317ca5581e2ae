import { createHash, timingSafeEqual } from 'node:crypto';
import { existsSync } from 'node:fs';
import { rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { checksRequestSchema, misbehaveSchema, problem, ValidationError, type CheckResult, type Problem } from '@zinc/contract';
import { inputsOf, type Ticket } from '@zinc/core';
import { findSubject, findWishes } from '@zinc/scenes';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import { capabilities } from './capabilities.ts';
import { Misbehaviour } from './misbehaviour.ts';
import type { Renders } from './renders.ts';

export interface PressSettings {
  token: string;
  /** Lets POST /v1/misbehave make the press slow or wrong, for tests. */
  mayMisbehave: boolean;
}

function refuse(res: Response, document: Problem): void {
  if (document.status === 503 || document.status === 429) res.setHeader('Retry-After', '2');
  res.status(document.status).type('application/problem+json').json(document);
}

/** Checks what of a ticket decides whether and what this press can draw. */
function readTicket(body: unknown): Ticket {
  const ticket = (body as { ticket?: Ticket } | undefined)?.ticket;
  if (!ticket || ticket.ticket !== 1) throw new ValidationError('The request holds no ticket of version 1.', undefined, 'ticket');
  const { width, height } = ticket.format ?? {};
  for (const [name, side] of [
    ['width', width],
    ['height', height],
  ] as const)
    if (!Number.isInteger(side) || side < 64 || side > 2048)
      throw new ValidationError(
        `Got a ${name} of ${side}; this press makes sides of 64 to 2048 pixels.`,
        undefined,
        `ticket.format.${name}`,
      );
  const share = (value: unknown, name: string, field: string): void => {
    if (!(typeof value === 'number' && value >= 0 && value <= 100))
      throw new ValidationError(`Got a ${name} of ${String(value)}; wanted 0 to 100.`, undefined, `ticket.${field}`);
  };
  const { settings = { strength: NaN }, binding, fidelity } = ticket;
  share(settings.strength, 'strength', 'settings.strength');
  for (const key of ['adherence', 'scatter']) if (key in settings) share(settings[key], key, `settings.${key}`);
  if (binding) {
    share(binding.amount, 'binding', 'binding.amount');
    if (binding.sheet?.sheet !== 1 || !binding.sheet.target?.colour)
      throw new ValidationError('The ticket is bound but has no binding sheet of version 1.', undefined, 'ticket.binding.sheet');
  }
  if (fidelity)
    for (const key of ['subject', 'ground'] as const) share(fidelity[key], `fidelity of the ${key}`, `fidelity.${key}`);
  for (const [k, step] of (ticket.offshoots ?? []).entries())
    share(step.distance, 'distance of an offshoot', `offshoots.${k}.distance`);
  if (ticket.retouch && ticket.retouch.how !== 'remove' && ticket.retouch.how !== 'again')
    throw new ValidationError(
      `Got a retouch that is to ${String(ticket.retouch.how)}; wanted remove or again.`,
      undefined,
      'ticket.retouch.how',
    );
  if (!ticket.look?.style?.amounts)
    throw new ValidationError('The ticket has no resolved style.', undefined, 'ticket.look.style');
  if (!Number.isInteger(ticket.seed))
    throw new ValidationError(`Got the seed ${ticket.seed}; wanted a whole number.`, undefined, 'ticket.seed');
  if (ticket.contents.length > 1)
    throw new ValidationError('This press takes one content picture.', undefined, 'ticket.contents');
  return ticket;
}

/** The stand-in press as an Express application; docs/press-contract.yaml describes it. */
export function createPress(renders: Renders, settings: PressSettings): Express {
  const app = express();
  const misbehaviour = new Misbehaviour();
  app.disable('x-powered-by');
  const expected = Buffer.from(`Bearer ${settings.token}`);
  app.use('/v1', (req, res, next) => {
    const given = Buffer.from(req.headers.authorization ?? '');
    if (given.length === expected.length && timingSafeEqual(given, expected)) next();
    else refuse(res, problem('notSignedIn', 'This press wants its bearer token.'));
  });
  app.get('/v1/capabilities', (_req, res) => {
    res.json(capabilities(renders.threads));
  });
  app.head('/v1/inputs/:sha', (req, res) => {
    res
      .status(/^[0-9a-f]{64}$/.test(req.params.sha) && existsSync(join(renders.inputs, `${req.params.sha}.png`)) ? 200 : 404)
      .end();
  });
  app.put('/v1/inputs/:sha', express.raw({ type: () => true, limit: '80mb' }), async (req, res) => {
    const { sha } = req.params;
    const bytes = req.body as Buffer;
    const own = Buffer.isBuffer(bytes) ? createHash('sha256').update(bytes).digest('hex') : '';
    if (own !== sha)
      return refuse(
        res,
        problem('badInput', `The bytes hash to ${own || 'nothing'}, the address says ${sha}.`, { field: 'sha256' }),
      );
    const file = join(renders.inputs, `${sha}.png`);
    await writeFile(`${file}.part`, bytes);
    await rename(`${file}.part`, file);
    res.status(204).end();
  });
  app.use(express.json({ limit: '8mb' }));
  app.post('/v1/checks', async (req, res) => {
    const { checks } = await checksRequestSchema.validate(req.body, { strict: true });
    const known = new Set(capabilities(renders.threads).settings.map(s => s.key));
    const results = checks.map((c): CheckResult => {
      const ignoredSettings = Object.keys(c.settings).filter(k => !known.has(k));
      if (c.contents.length > 0) return { key: c.key, verdict: 'drawable', ignored: [], ignoredSettings };
      const own = findSubject(c.wording);
      if (!own.subject)
        return {
          key: c.key,
          verdict: 'notDrawn',
          detail: `“${c.wording}” is not among what this press draws.`,
          ignored: [],
          ignoredSettings,
        };
      const verdict = own.drawnAs ? 'drawnAs' : 'drawable';
      const ignored = [...new Set([...own.ignored, ...findWishes(c.around ?? '', own.subject).ignored])];
      return { key: c.key, verdict, as: own.subject.name, ignored, ignoredSettings };
    });
    res.json({ results });
  });
  app.post('/v1/renders', misbehaviour.onOrder, (req, res) => {
    const key = req.header('idempotency-key');
    if (!key || key.length > 200)
      return refuse(res, problem('badInput', 'Send an Idempotency-Key of 1 to 200 characters.', { field: 'Idempotency-Key' }));
    const ticket = readTicket(req.body);
    const missing = inputsOf(ticket).find(sha256 => !existsSync(join(renders.inputs, `${sha256}.png`)));
    if (missing)
      return refuse(
        res,
        problem('notPossible', `The picture ${missing} has not been brought; PUT it first.`, {
          field: 'ticket.contents',
        }),
      );
    const render = renders.order(key, ticket);
    misbehaviour.ordered(render);
    res.status(202).setHeader('Location', `/v1/renders/${render.id}`).json(misbehaviour.tell(render));
  });
  app.get('/v1/renders/:id', (req, res) => {
    const render = renders.find(req.params.id);
    if (render) res.json(misbehaviour.tell(render));
    else refuse(res, problem('notFound', 'This press knows no such render.'));
  });
  app.get('/v1/renders/:id/image', misbehaviour.onImage, async (req: Request<{ id: string }>, res) => {
    const image = await renders.image(req.params.id);
    if (!image) return refuse(res, problem('notFound', 'This render has no image, or not yet.'));
    res
      .type('image/png')
      .setHeader('X-Pixel-Hash', image.pixels)
      .send(await misbehaviour.damage(image.png));
  });
  app.delete('/v1/renders/:id', (req, res) => {
    const render = renders.cancel(req.params.id);
    misbehaviour.cancelled(req.params.id);
    if (render) res.json(render);
    else refuse(res, problem('notFound', 'This press knows no such render.'));
  });
  app.post('/v1/misbehave', async (req, res) => {
    if (!settings.mayMisbehave) return refuse(res, problem('notAllowed', 'This press was not started to misbehave.'));
    const wanted = await misbehaveSchema.validate(req.body);
    misbehaviour.set(wanted.how, wanted.times);
    res.status(204).end();
  });
  app.use((_req, res) => refuse(res, problem('notFound', 'This press has nothing at this address.')));
  app.use((error: Error & { status?: number }, _req: Request, res: Response, next: NextFunction) => {
    if (res.headersSent) next(error);
    else if (error instanceof ValidationError) refuse(res, problem('badInput', error.message, { field: error.path }));
    else if (error.status === 413) refuse(res, problem('tooLarge', 'The request is larger than this press takes.'));
    else if (error.status === 400) refuse(res, problem('badInput', error.message));
    else refuse(res, problem('broken', error.message));
  });
  return app;
}
