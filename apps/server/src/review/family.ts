import type { FamilyMember } from '@zinc/contract';
import { and, eq, inArray } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { proofs, takes } from '../runs/tables.ts';

/** A family ends somewhere: so many generations are followed. */
const MOST_GENERATIONS = 60;

async function parentOf(context: Context, proofId: string): Promise<string | null> {
  const [row] = await context.db
    .select({ parent: takes.parentProof })
    .from(proofs)
    .innerJoin(takes, eq(takes.id, proofs.takeId))
    .where(eq(proofs.id, proofId));
  return row?.parent ?? null;
}

/** The first proof that one comes from, through all that was made of it. */
export async function firstOf(context: Context, proofId: string): Promise<string> {
  let first = proofId;
  for (let k = 0; k < MOST_GENERATIONS; k++) {
    const parent = await parentOf(context, first);
    if (!parent) break;
    first = parent;
  }
  return first;
}

/** Everything that was made from the first proof of a family, generation by generation; those still being made have no proof yet. */
export async function familyOf(context: Context, proofId: string): Promise<FamilyMember[]> {
  const select = () =>
    context.db
      .select({
        proofId: proofs.id,
        parentId: takes.parentProof,
        how: takes.kin,
        take: takes.take,
        state: takes.state,
        pictureSha: proofs.sha256,
        ticket: takes.ticket,
      })
      .from(takes)
      .leftJoin(proofs, and(eq(proofs.takeId, takes.id), eq(proofs.generation, takes.generation)));
  const root = await firstOf(context, proofId);
  let generation = await select().where(eq(proofs.id, root));
  const out: FamilyMember[] = [];
  for (let k = 0; k < MOST_GENERATIONS && generation.length > 0; k++) {
    out.push(
      ...generation.map(({ ticket, ...m }) => ({
        ...m,
        distance: m.how === 'offshoot' ? (ticket.offshoots?.at(-1)?.distance ?? null) : null,
      })),
    );
    const ids = generation.flatMap(m => (m.proofId ? [m.proofId] : []));
    generation = ids.length > 0 ? await select().where(inArray(takes.parentProof, ids)).orderBy(takes.take) : [];
  }
  return out;
}

/** How many finished pictures lie under a proof: a retouch works over pixels, all else is made from its recipe anew. */
export function depthOf(family: readonly FamilyMember[], proofId: string): number {
  let depth = 0;
  let at = family.find(m => m.proofId === proofId);
  while (at && (at.how === 'removed' || at.how === 'paintedAgain')) {
    depth++;
    const { parentId } = at;
    at = family.find(m => m.proofId === parentId);
  }
  return depth;
}
