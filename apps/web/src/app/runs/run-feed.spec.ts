import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Actions } from '@ngrx/effects';
import type { Decision, RunDetail } from '@zinc/contract';
import { EMPTY } from 'rxjs';
import { Api } from '../shared/api';
import { RunFeed } from './run-feed';

describe('a run that is followed', () => {
  const keep = { verdict: 'keep', grade: null } as unknown as Decision;
  /** What the server has of the one proof. */
  let onServer: Decision | null;
  let answers: (() => void)[];
  let feed: RunFeed;

  const detail = (): RunDetail =>
    ({ cells: [{ takes: [{ proof: { id: 'p', decision: onServer } }, { proof: null }] }] }) as unknown as RunDetail;
  const shown = (): Decision | null => feed.detail()!.cells[0].takes[0].proof!.decision;
  /** Begins a load, whose answer is as the server has it now; returns what brings the answer. */
  const load = (): (() => Promise<void>) => {
    feed.refresh();
    const answer = answers.pop()!;
    return async () => {
      answer();
      await new Promise(r => setTimeout(r));
    };
  };

  beforeEach(async () => {
    [onServer, answers] = [null, []];
    const get = (): Promise<RunDetail> => {
      const now = detail();
      return new Promise(resolve => answers.push(() => resolve(now)));
    };
    TestBed.configureTestingModule({
      providers: [RunFeed, { provide: Api, useValue: { get } }, { provide: Actions, useValue: new Actions(EMPTY) }],
    });
    feed = TestBed.inject(RunFeed);
    feed.follow(signal('r'));
    await load()();
  });

  it('shows a decision on its way over everything that is loaded meanwhile', async () => {
    feed.decide('p', keep);
    expect(shown()).toBe(keep);
    await load()();
    expect(shown()).toBe(keep);
    // A load that began before the server had it may still come afterwards.
    const late = load();
    onServer = keep;
    feed.settle('p', keep);
    await late();
    expect(shown()).toBe(keep);
    // From then on the server is asked: somebody may have withdrawn it.
    onServer = null;
    await load()();
    expect(shown()).toBeNull();
  });

  it('puts back what stood when the server will not have it, and lets the newest of several stand', async () => {
    feed.decide('p', keep);
    const drop = { ...keep, verdict: 'drop' } as Decision;
    feed.decide('p', drop);
    feed.settle('p', keep);
    await load()();
    expect(shown()).toBe(drop);
    feed.withdraw('p', keep);
    expect(shown()).toBe(keep);
  });
});
