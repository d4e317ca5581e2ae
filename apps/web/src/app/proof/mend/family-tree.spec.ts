import type { FamilyMember } from '@zinc/contract';
import { branchesOf } from './family-tree';

const member = (proofId: string | null, parentId: string | null, take: number): FamilyMember => ({
  ...{ proofId, parentId, take, state: proofId ? 'made' : 'waiting' },
  ...{ how: parentId ? 'offshoot' : null, pictureSha: null, distance: null },
});

describe('A family of proofs', () => {
  it('is read as a tree: each before what was made from it, set in under its parent', () => {
    const family = [member('a', null, 1), member('b', 'a', 2), member('c', 'a', 3), member('d', 'b', 4), member(null, 'd', 5)];
    expect(branchesOf(family).map(b => [b.member.take, b.depth])).toEqual([
      [1, 0],
      [2, 1],
      [4, 2],
      [5, 3],
      [3, 1],
    ]);
  });
  it('of one is itself, and of none nothing', () => {
    expect(branchesOf([member('a', null, 1)]).length).toBe(1);
    expect(branchesOf([])).toEqual([]);
  });
});
