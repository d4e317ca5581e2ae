import { addressSchema, fingerprintsSchema, hashesSchema, referencePatchSchema, referenceSchema } from '@zinc/contract';
import { and, eq, lt, ne } from 'drizzle-orm';
import sharp from 'sharp';
import { array, object, string } from 'yup';
import { readIfMatch } from '../http/ifMatch.ts';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, MAKERS, route } from '../http/route.ts';
import { fetchPicture } from './address.ts';
import { findPicture, takeInPicture } from './pictures.ts';
import { addReference, fingerprintsOf, oneReference, selectReferences } from './service.ts';
import { styleReferences } from './tables.ts';
import { readUpload } from './upload.ts';

/** The first page is short, so that the shelf is soon seen; the others are long, so that it is soon whole. */
const FIRST_PAGE = 200;
const PAGE = 2000;
/** What is known of a picture that has just arrived. */
const NEW_REFERENCE = { shelf: 'Just arrived', credit: '', licence: '', licenceEnds: null };

export const shelfRoutes = [
  route({
    method: 'get',
    path: '/references',
    roles: EVERYONE,
    summary: 'References, newest first, a page at a time',
    query: ['after', 'state'],
    response: object({ items: array(referenceSchema.required()).required(), next: string().nullable().defined() }),
    async handle({ context, query }) {
      const states = query.state === 'all' ? undefined : ne(styleReferences.state, 'put away');
      const page = query.after ? PAGE : FIRST_PAGE;
      const items = await selectReferences(
        context,
        and(states, query.after ? lt(styleReferences.id, query.after) : undefined),
        page + 1,
      );
      return { items: items.slice(0, page), next: items.length > page ? items[page - 1].id : null };
    },
  }),
  route({
    method: 'post',
    path: '/references',
    roles: MAKERS,
    summary: 'Add one picture to the shelf: it is checked, measured and kept',
    upload: 'file',
    status: 201,
    response: referenceSchema,
    async handle({ context, req, res, person }) {
      const { name, bytes } = await readUpload(req, res);
      const picture = await takeInPicture(context, name, bytes);
      const plain =
        name
          .replace(/\.[a-z0-9]+$/i, '')
          .replace(/[_]+/g, ' ')
          .trim() || 'Untitled';
      const id = await addReference(context, person.id, picture.sha256, { ...NEW_REFERENCE, name: plain.slice(0, 120) });
      return oneReference(context, id);
    },
  }),
  route({
    method: 'post',
    path: '/references/from-address',
    roles: MAKERS,
    summary: 'Fetch a picture from a public web address onto the shelf',
    body: addressSchema,
    status: 201,
    response: referenceSchema,
    async handle({ context, body, person }) {
      const { name, bytes } = await fetchPicture(body.url);
      const picture = await takeInPicture(context, name, bytes);
      const id = await addReference(context, person.id, picture.sha256, {
        ...NEW_REFERENCE,
        name,
        credit: new URL(body.url).hostname.slice(0, 200),
        origin: { kind: 'address', url: body.url },
      });
      return oneReference(context, id);
    },
  }),
  route({
    method: 'get',
    path: '/references/:id',
    roles: EVERYONE,
    summary: 'One reference',
    response: referenceSchema,
    handle: ({ context, params }) => oneReference(context, params.id),
  }),
  route({
    method: 'patch',
    path: '/references/:id',
    roles: MAKERS,
    summary: 'Change what is written about a reference (If-Match: its revision)',
    body: referencePatchSchema,
    response: referenceSchema,
    async handle({ context, req, params, body, person }) {
      const revision = readIfMatch(req);
      const before = await oneReference(context, params.id);
      const set = { ...body, licenceEnds: body.licenceEnds === '' ? null : body.licenceEnds, revision: revision + 1 };
      const [result] = await context.db
        .update(styleReferences)
        .set(set)
        .where(and(eq(styleReferences.id, params.id), eq(styleReferences.revision, revision)));
      if (result.affectedRows === 0)
        throw new ProblemError(
          'changedMeanwhile',
          `Someone changed “${before.name}” meanwhile. Look at theirs, then change it again.`,
        );
      await context.events.add(context.db, 'referenceChanged', params.id, person.id);
      return oneReference(context, params.id);
    },
  }),
  route({
    method: 'post',
    path: '/pictures/fingerprints',
    roles: EVERYONE,
    summary: 'Fingerprints of kept pictures, by their hash',
    body: hashesSchema,
    response: fingerprintsSchema,
    handle: async ({ context, body }) => ({ items: await fingerprintsOf(context, body.hashes) }),
  }),
  route({
    method: 'get',
    path: '/pictures/:sha/thumb',
    roles: EVERYONE,
    summary: 'A picture to look at, its long side at most `side` pixels',
    query: ['side'],
    produces: 'image/webp',
    async handle({ context, params, query, res }) {
      const picture = await findPicture(context, params.sha);
      if (!picture) throw new ProblemError('notFound', 'There is no such picture.');
      const asked = Number(query.side ?? 320);
      const side = [96, 160, 320, 640, 1280].find(s => s >= asked) ?? 1280;
      const path = await context.store.derived(`${params.sha}-${side}.webp`, async () =>
        sharp(await context.store.read(picture.working))
          .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
          .webp({ quality: 88 })
          .toBuffer(),
      );
      res
        .setHeader('Cache-Control', 'private, max-age=31536000, immutable')
        .type('image/webp')
        .sendFile(path, { dotfiles: 'allow' });
    },
  }),
  route({
    method: 'get',
    path: '/pictures/:sha/working',
    roles: EVERYONE,
    summary: 'The lossless working copy of a picture (PNG, sRGB, 8 bit)',
    produces: 'image/png',
    async handle({ context, params, res }) {
      const picture = await findPicture(context, params.sha);
      if (!picture) throw new ProblemError('notFound', 'There is no such picture.');
      res
        .setHeader('Cache-Control', 'private, max-age=31536000, immutable')
        .type('image/png')
        .send(await context.store.read(picture.working));
    },
  }),
];
