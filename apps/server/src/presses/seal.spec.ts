import { seal, unseal } from './seal.ts';

describe('a sealed token', () => {
  it('comes back with the same secret, and with no other', () => {
    const sealed = seal('an ordinary token', 'the secret of the house');
    expect(sealed).not.toContain('ordinary');
    expect(unseal(sealed, 'the secret of the house')).toBe('an ordinary token');
    expect(unseal(sealed, 'another secret')).toBeNull();
  });
  it('is never sealed twice alike, and a changed one does not open', () => {
    const [p, q] = [seal('token', 'secret'), seal('token', 'secret')];
    expect(p).not.toBe(q);
    const bytes = Buffer.from(p, 'base64url');
    bytes[bytes.length - 1] ^= 1;
    expect(unseal(bytes.toString('base64url'), 'secret')).toBeNull();
    expect(unseal('', 'secret')).toBeNull();
  });
});
