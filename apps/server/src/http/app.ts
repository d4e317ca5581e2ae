import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { problem, ValidationError, type Person, type Problem } from '@zinc/contract';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import MySQLStoreFactory from 'express-mysql-session';
import { rateLimit } from 'express-rate-limit';
import session from 'express-session';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import type { Context } from '../context.ts';
import { findPerson } from '../people/service.ts';
import { openApi } from './openapi.ts';
import { isDiskFull, ProblemError } from './problemError.ts';
import { routes } from './routes.ts';
import type { Route } from './route.ts';

declare module 'express-session' {
  interface SessionData {
    personId: string;
  }
}

function answer(res: Response, document: Problem): void {
  if (document.status === 503 || document.status === 429) res.setHeader('Retry-After', '3');
  res.status(document.status).type('application/problem+json').send(JSON.stringify(document));
}

/** Turns whatever was thrown into a problem document. */
function toProblem(error: unknown): Problem {
  if (error instanceof ProblemError) return error.document;
  if (error instanceof ValidationError) return problem('badInput', error.message, { field: error.path });
  if (isDiskFull(error) || isDiskFull((error as { cause?: unknown }).cause))
    return problem('noRoom', 'There is no room on the disk for this. Nothing was kept; make room, then try again.');
  const { status, code, message, type } = error as { status?: number; code?: string; message?: string; type?: string };
  const inner = (error as { cause?: { code?: string } }).cause?.code ?? code;
  if (inner === 'ECONNREFUSED' || inner === 'PROTOCOL_CONNECTION_LOST' || inner === 'ER_SERVER_SHUTDOWN')
    return problem('databaseGone', 'The database does not answer. Nothing was changed; try again in a moment.');
  if (type === 'entity.too.large' || status === 413) return problem('tooLarge', 'The request is larger than 2 MB.');
  if (status === 400) return problem('badInput', `The request cannot be read: ${message}`);
  return problem('broken', 'Something went wrong in Zinc Shelf. It has been written to the log; nothing half done was kept.');
}

/** Refuses writes that another site makes a browser send. */
function sameOrigin(req: Request, _res: Response, next: NextFunction): void {
  if (req.method === 'GET' || req.method === 'HEAD') return next();
  const site = req.headers['sec-fetch-site'];
  const { origin } = req.headers;
  const foreign = (site && site !== 'same-origin' && site !== 'none') || (origin && new URL(origin).host !== req.headers.host);
  next(foreign ? new ProblemError('wrongOrigin', 'Writes are accepted from Zinc Shelf itself only.') : undefined);
}

function mount(router: express.Router, context: Context, r: Route): void {
  router[r.method](r.path, async (req, res) => {
    const person = req.session?.personId ? await findPerson(context, req.session.personId) : null;
    if (r.roles !== 'anyone') {
      if (!person) throw new ProblemError('notSignedIn', 'Sign in first.');
      if (!r.roles.includes(person.role))
        throw new ProblemError('notAllowed', `A ${person.role} cannot do this; it is for: ${r.roles.join(', ')}.`);
    }
    const body: unknown = r.body ? await r.body.validate(req.body ?? {}, { abortEarly: true, stripUnknown: false }) : undefined;
    const result: unknown = await r.handle({
      context,
      req: req as Request<Record<string, string>>,
      res,
      params: req.params as Record<string, string>,
      query: req.query as Record<string, string | undefined>,
      body,
      person: person as Person,
    });
    if (res.headersSent || res.writableEnded || r.produces) return;
    if (result === undefined) res.status(r.status ?? 204).end();
    else res.status(r.status ?? 200).json(result);
  });
}

/** The whole server as an Express application. `webFolder` holds the built web application, when there is one. */
export function createApp(context: Context, webFolder: string | null): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // The engine's kernels are compiled in the browser; no other code is made there.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          // PrimeNG writes its theme into style elements; scripts stay strict.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(
    pinoHttp({
      logger: context.log,
      redact: ['req.headers.cookie', 'req.headers.authorization', 'res.headers["set-cookie"]'],
      customLogLevel: (_req, res, error) => (error || res.statusCode >= 500 ? 'error' : 'debug'),
    }),
  );
  const api = express.Router();
  api.get('/health', (_req, res) => {
    res.json({ ok: true });
  });
  api.get('/openapi.json', (_req, res) => {
    res.json(openApi(routes));
  });
  api.use(sameOrigin);
  // The package's types ask for the callback pool; it also takes a promise pool's underlying one.
  const MySQLStore = MySQLStoreFactory(session as never);
  const store = new MySQLStore({ createDatabaseTable: true, schema: { tableName: 'sessions' } }, context.pool as never);
  api.use(
    session({
      name: 'zinc.session',
      secret: context.settings.secret,
      store: store as unknown as session.Store,
      resave: false,
      saveUninitialized: false,
      rolling: true,
      cookie: { httpOnly: true, sameSite: 'lax', maxAge: 12 * 3600 * 1000 },
    }),
  );
  const tooMany = (_req: Request, _res: Response, next: NextFunction): void =>
    next(new ProblemError('tooMany', 'Too many tries from here. Wait a minute, then try again.'));
  api.use(
    '/session',
    rateLimit({
      windowMs: 60_000,
      limit: 20,
      skip: req => req.method === 'GET',
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: tooMany,
    }),
  );
  api.use(
    '/references',
    rateLimit({
      windowMs: 60_000,
      limit: 400,
      skip: req => req.method === 'GET',
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: tooMany,
    }),
  );
  api.use(express.json({ limit: '2mb' }));
  for (const r of routes) mount(api, context, r);
  api.use((_req, _res, next) => next(new ProblemError('notFound', 'The API has nothing at this address.')));
  api.use((error: unknown, req: Request, res: Response, next: NextFunction) => {
    const document = toProblem(error);
    if (document.code === 'broken') req.log.error({ err: error }, 'unexpected');
    if (res.headersSent) next(error);
    else answer(res, document);
  });
  app.use('/api', api);
  if (webFolder && existsSync(join(webFolder, 'index.html'))) {
    app.use(express.static(webFolder, { index: false, dotfiles: 'allow', maxAge: '1y', immutable: true }));
    app.get('/{*path}', (_req, res) => {
      res.setHeader('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html'), { dotfiles: 'allow' });
    });
  }
  return app;
}
