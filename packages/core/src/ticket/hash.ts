import canonicalizeModule from 'canonicalize';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Ticket } from './types.ts';

// The package is CommonJS with a default that bundlers unwrap and Node does not always.
const canonicalize = ((canonicalizeModule as unknown as { default?: unknown }).default ?? canonicalizeModule) as (
  value: unknown,
) => string | undefined;

/** Canonical JSON (RFC 8785) of a value. */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('Got a value that JSON cannot hold; wanted numbers, texts, lists and records.');
  return text;
}

/** SHA-256 of the ticket's canonical JSON, in hexadecimal: the link between an image and its recipe. */
export function ticketHash(ticket: Ticket): string {
  return bytesToHex(sha256(utf8ToBytes(canonicalJson(ticket))));
}
