import type { ProofView, RoundView, Verdict } from '@zinc/contract';
import { agreementOf, hasChanged, isDisputed, isShown, lastSigned } from './voices';

const round = (number: number, stood: RoundView['stood']): RoundView => ({
  number,
  openedBy: 'Ines',
  openedAt: '',
  reason: '',
  signedBy: stood ? 'Ines' : null,
  signedAt: stood ? '2026-11-25' : null,
  stood,
});
const proof = (id: string, verdicts: (Verdict | null)[], openComments = 0): ProofView => ({
  id,
  pictureSha: '',
  width: 1,
  height: 1,
  drift: null,
  likeness: null,
  seed: 1,
  ticketHash: '',
  openComments,
  voices: verdicts.map((verdict, i) => ({ personId: String(i), person: `P${i}`, role: 'designer', verdict, grade: null })),
  decision: verdicts[0]
    ? { id: 'd', proofId: id, verdict: verdicts[0], grade: null, reasons: [], note: '', person: 'P0', at: '' }
    : null,
});

describe('what people say of a set', () => {
  it('agrees where two or more say the same, whoever is alone counts for nothing', () => {
    const proofs = [proof('a', ['keep', 'keep']), proof('b', ['keep', 'hold']), proof('c', ['drop']), proof('d', ['drop', null])];
    expect(agreementOf(proofs)).toEqual({ judged: 2, agreed: 1 });
  });

  it('is in dispute only when one keeps what another drops', () => {
    expect(isDisputed(proof('a', ['keep', 'drop']).voices)).toBeTrue();
    expect(isDisputed(proof('a', ['keepOnceMended', 'hold', 'drop']).voices)).toBeTrue();
    expect(isDisputed(proof('a', ['keep', 'hold', 'keep']).voices)).toBeFalse();
    expect(isDisputed([])).toBeFalse();
  });
  it('has changed since a round when it is new or stands otherwise', () => {
    const first = round(1, { a: 'keep', b: null });
    expect(hasChanged(proof('a', ['keep']), first)).toBeFalse();
    expect(hasChanged(proof('a', ['drop']), first)).toBeTrue();
    expect(hasChanged(proof('b', []), first)).toBeFalse();
    expect(hasChanged(proof('c', []), first)).toBeTrue();
    expect(lastSigned([first, round(2, null)])?.number).toBe(1);
    expect(lastSigned([])).toBeNull();
  });
  it('can be narrowed to what is open, in dispute, spoken of or changed', () => {
    const all = [proof('a', ['keep', 'drop']), proof('b', [], 2), proof('c', ['drop'])];
    const ids = (showing: Parameters<typeof isShown>[1]): string =>
      all
        .filter(p => isShown(p, showing, round(1, { a: 'keep', c: 'drop' })))
        .map(p => p.id)
        .join('');
    expect([ids('all'), ids('open'), ids('disputed'), ids('said'), ids('changed')]).toEqual(['abc', 'b', 'a', 'b', 'b']);
  });
});
