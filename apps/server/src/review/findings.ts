import { findingsSchema, type ProofFindings } from '@zinc/contract';
import { labOfHex } from '@zinc/core';
import { eq } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { findBrand } from '../house/service.ts';
import { EVERYONE, route } from '../http/route.ts';
import { bareProof } from '../runs/service.ts';
import { pictures } from '../shelf/tables.ts';
import { letteringOf } from '../shelf/pictures.ts';
import { fingerprintsOf } from '../shelf/service.ts';

/** Leaks under this share of the picture are rims of other colours. */
const LEAST_LEAK = 0.004;

/** Colours and shapes of a proof's sources that turn up in it and that nobody wanted. */
async function findingsOf(context: Context, proofId: string): Promise<ProofFindings> {
  const proof = await bareProof(context, proofId);
  const given = proof.sources.filter(s => s.kind === 'reference' && s.sha256 && s.parts > 0);
  const prints = await fingerprintsOf(
    context,
    given.flatMap(s => (s.sha256 ? [s.sha256] : [])),
  );
  const brand = await findBrand(context);
  const content = proof.original ? (await fingerprintsOf(context, [proof.original.sha256]))[proof.original.sha256] : null;
  // Colours that may be there, whichever source has them too.
  const wanted = [
    ...proof.targetPalette,
    ...proof.ticket.look.style.palette,
    ...(brand?.colours.filter(c => !c.never).map(c => labOfHex(c.hex)) ?? []),
    ...(content?.colour.palette ?? []),
    ...(proof.ticket.subject.colours ?? []).map(labOfHex),
  ];
  const painted = await context.store.read(proof.pictureSha);
  const leaks: ProofFindings['leaks'] = [];
  const echoes: ProofFindings['echoes'] = [];
  for (const source of given) {
    const sha256 = source.sha256!;
    const [row] = await context.db.select({ working: pictures.working }).from(pictures).where(eq(pictures.sha256, sha256));
    if (!row || !prints[sha256]) continue;
    const found = await context.pictures.find({
      kind: 'findings',
      painted,
      source: await context.store.read(row.working),
      // A source that gives its colours is wanted for them.
      palette: source.facets.includes('colour') ? [] : prints[sha256].colour.palette,
      wanted,
    });
    if (found.leak && found.leak.share >= LEAST_LEAK) leaks.push({ ...found.leak, source: source.name });
    echoes.push(...found.echoes.map(e => ({ ...e, source: source.name, sha256 })));
  }
  const lettering =
    proof.ticket.text.lettering.length > 0 ? [] : ((await letteringOf(context, [proof.pictureSha]))[proof.pictureSha] ?? []);
  return { leaks, echoes, lettering };
}

export const findingRoutes = [
  route({
    method: 'get',
    path: '/proofs/:id/findings',
    roles: EVERYONE,
    summary:
      'What a proof shows of its sources that nobody wanted: leaked colours, echoed shapes and lettering, each with its place',
    response: findingsSchema,
    handle: ({ context, params }) => findingsOf(context, params.id),
  }),
];
