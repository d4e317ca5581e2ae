import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

const keyOf = (secret: string): Buffer => Buffer.from(hkdfSync('sha256', secret, '', 'press tokens', 32));

/** Seals a text with the secret of the house (AES-256-GCM, NIST SP 800-38D); the result is base64url. */
export function seal(text: string, secret: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', keyOf(secret), nonce);
  const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64url');
}

/** Opens what {@link seal} closed; null when the secret is another or the seal is broken. */
export function unseal(sealed: string, secret: string): string | null {
  try {
    const bytes = Buffer.from(sealed, 'base64url');
    const decipher = createDecipheriv('aes-256-gcm', keyOf(secret), bytes.subarray(0, 12));
    decipher.setAuthTag(bytes.subarray(12, 28));
    return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}
