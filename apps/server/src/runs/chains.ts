import { eq } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { pictures } from '../shelf/tables.ts';
import { proofs, takes } from './tables.ts';

/** Longer chains are told as if they ended here. */
const LONGEST = 12;

/** How a picture came about: how many proofs of ours lie one on another in it, and the picture that the first was made from. */
export interface Chain {
  depth: number;
  /** Null when the first was drawn from words. */
  original: string | null;
}

/** Follows a picture, by its pixels, back through the proofs that it was made from. */
export async function chainOf(context: Context, sha256: string): Promise<Chain> {
  let at: string | null = sha256;
  let depth = 0;
  while (at && depth < LONGEST) {
    const [picture]: { pixelHash: string | null }[] = await context.db
      .select({ pixelHash: pictures.pixelHash })
      .from(pictures)
      .where(eq(pictures.sha256, at));
    if (!picture?.pixelHash) break;
    const [proof] = await context.db
      .select({ ticket: takes.ticket })
      .from(proofs)
      .innerJoin(takes, eq(takes.id, proofs.takeId))
      .where(eq(proofs.pixelHash, picture.pixelHash))
      .limit(1);
    if (!proof) break;
    depth++;
    // A retouch lies on the picture that was worked over, anything else on its content.
    const under: string | undefined = proof.ticket.retouch?.picture ?? proof.ticket.contents[0]?.sha256;
    if (!under) return { depth, original: null };
    const [next]: { sha256: string }[] = await context.db
      .select({ sha256: pictures.sha256 })
      .from(pictures)
      .where(eq(pictures.working, under))
      .limit(1);
    at = next?.sha256 ?? null;
  }
  return { depth, original: at };
}
