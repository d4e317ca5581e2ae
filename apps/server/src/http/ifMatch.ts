import type { Request } from 'express';
import { ProblemError } from './problemError.ts';

/** The revision a writer believes to be the newest, from `If-Match: "3"`. Throws when the header is missing. */
export function readIfMatch(req: Request<Record<string, string>>): number {
  const value = /^"?(\d+)"?$/.exec(req.header('if-match') ?? '')?.[1];
  if (!value)
    throw new ProblemError('badInput', 'Send If-Match with the revision this change starts from.', { field: 'If-Match' });
  return Number(value);
}
