import { WordIndex } from './word-index';

describe('words on the shelf', () => {
  const ids = (found: ReadonlySet<string> | null): string => [...(found ?? [])].sort().join('');
  let index: WordIndex;
  beforeEach(async () => {
    index = new WordIndex();
    await index.keep([
      { id: 'a', text: 'Winter window Cut paper' },
      { id: 'b', text: 'Frost window Cut paper' },
      { id: 'c', text: 'Crème label, Prints' },
    ]);
  });

  it('forgives a wrong, missing or swapped letter, capitals and accents', () => {
    expect(ids(index.find('wintre'))).toBe('a');
    expect(ids(index.find('windw'))).toBe('ab');
    expect(ids(index.find('CREME'))).toBe('c');
    expect(ids(index.find('frst pap'))).toBe('b');
  });

  it('takes a word as it stands when something begins with it', async () => {
    await index.keep([
      { id: 'a', text: 'Find 4821' },
      { id: 'b', text: 'Find 4822' },
    ]);
    expect(ids(index.find('fnd 4821'))).toBe('a');
    expect(ids(index.find('find 482'))).toBe('ab');
  });

  it('wants every word, and knows asking for nothing from finding nothing', () => {
    expect(ids(index.find('winter print'))).toBe('');
    expect(index.find('winter print')).not.toBeNull();
    expect(index.find('  ')).toBeNull();
  });

  it('follows what changes', async () => {
    const before = index.changes();
    await index.keep([{ id: 'a', text: 'Summer window' }]);
    expect(ids(index.find('winter'))).toBe('');
    expect(ids(index.find('summer'))).toBe('a');
    expect(ids(index.find('frost'))).toBe('');
    expect(index.changes()).toBeGreaterThan(before);
  });
});
