import { TestBed } from '@angular/core/testing';
import { problem, type DecisionInput } from '@zinc/contract';
import { Api, ApiError } from '../shared/api';
import { Messages } from '../shared/messages';
import { DecisionQueue } from './decision-queue';

describe('decisions on their way', () => {
  const decision = (id: string): DecisionInput => ({ id, proofId: 'p', verdict: 'keep', grade: null, reasons: [], note: '' });
  let sent: string[];
  let answer: (id: string) => void;
  let failed: string[];

  const queue = (): DecisionQueue => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        {
          provide: Api,
          useValue: {
            send: async (_method: string, _path: string, body: DecisionInput) => {
              await Promise.resolve();
              answer(body.id);
              sent.push(body.id);
            },
          },
        },
        { provide: Messages, useValue: { failed: (e: Error) => failed.push(e.message) } },
      ],
    });
    return TestBed.inject(DecisionQueue);
  };

  beforeEach(() => {
    localStorage.removeItem('zinc.decisions');
    [sent, failed] = [[], []];
    answer = () => undefined;
    jasmine.clock().install();
  });
  afterEach(() => {
    jasmine.clock().uninstall();
    localStorage.removeItem('zinc.decisions');
  });

  it('go in their order, each once', async () => {
    const q = queue();
    await Promise.all([q.add('me', decision('a')), q.add('me', decision('b')), q.add('me', decision('c'))]);
    expect(sent).toEqual(['a', 'b', 'c']);
    expect(q.waiting()).toBe(0);
  });

  it('wait without a connection, over a reload too, and go in their order when it is back', async () => {
    answer = () => {
      throw new ApiError(problem('broken', 'gone'), true);
    };
    const first = queue();
    await first.add('me', decision('a'));
    await first.add('me', decision('b'));
    expect([sent, first.waiting()]).toEqual([[], 2]);
    const second = queue();
    expect([second.unsent('me').map(d => d.id), second.unsent('someone else')]).toEqual([['a', 'b'], []]);
    await second.send('someone else');
    expect(sent).toEqual([]);
    answer = () => undefined;
    await second.send('me');
    expect(sent).toEqual(['a', 'b']);
    expect(localStorage.getItem('zinc.decisions')).toBe('[]');
  });

  it('that are refused are told and passed over; those behind them go on', async () => {
    answer = id => {
      if (id === 'a') throw new ApiError(problem('badInput', 'There is no such proof.'));
    };
    const told: [string, boolean][] = [];
    const q = queue();
    for (const id of ['a', 'b']) q.whenGone(id, taken => told.push([id, taken]));
    await q.add('me', decision('a'));
    await q.add('me', decision('b'));
    expect(told).toEqual([
      ['a', false],
      ['b', true],
    ]);
    expect(q.unsent('me')).toEqual([]);
    expect(sent).toEqual(['b']);
    expect(failed[0]).toContain('There is no such proof.');
  });
});
