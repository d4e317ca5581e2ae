import { inject, Injectable, signal } from '@angular/core';
import type { AskAnswer, AskInput, Proof } from '@zinc/contract';
import type { Stroke } from '@zinc/core';
import { Api, messageOf } from '../../shared/api';
import { Messages } from '../../shared/messages';

export type Brush = 'brush' | 'outline' | 'rub';

/** What a hand is about to have mended of a proof: the region, and what is to become of it. */
@Injectable()
export class Mending {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  /** The tool in hand; null when the picture is only looked at. */
  readonly tool = signal<Brush | null>(null);
  /** Width of the brush in parts of the long side. */
  readonly size = signal(0.06);
  readonly strokes = signal<readonly Stroke[]>([]);
  readonly busy = signal(false);
  readonly fault = signal('');

  add(stroke: Stroke): void {
    this.fault.set('');
    this.strokes.update(all => [...all, stroke]);
  }

  back(): void {
    this.strokes.update(all => all.slice(0, -1));
  }

  clear(): void {
    this.strokes.set([]);
    this.fault.set('');
  }

  async retouch(proof: Proof, how: 'remove' | 'again', note: string): Promise<boolean> {
    const done = await this.order(`/proofs/${proof.id}/retouches`, { how, strokes: this.strokes(), note });
    if (done) {
      this.clear();
      this.tool.set(null);
    }
    return done;
  }

  offshoots(proof: Proof, distance: number, count: number): Promise<boolean> {
    return this.order(`/proofs/${proof.id}/offshoots`, { distance, count });
  }

  match(proof: Proof, amount: number): Promise<boolean> {
    return this.order(`/proofs/${proof.id}/match`, { amount });
  }

  async read(proof: Proof, ask: AskInput): Promise<AskAnswer | null> {
    try {
      this.fault.set('');
      return await this.api.send<AskAnswer>('POST', `/proofs/${proof.id}/asks/reading`, ask);
    } catch (error) {
      this.fault.set(messageOf(error));
      return null;
    }
  }

  ask(proof: Proof, ask: AskInput): Promise<boolean> {
    return this.order(`/proofs/${proof.id}/asks`, ask);
  }

  /** Nothing that was drawn or written is lost when an order is refused. */
  private async order(path: string, body: unknown): Promise<boolean> {
    this.busy.set(true);
    this.fault.set('');
    try {
      const { message } = await this.api.send<{ message?: string }>('POST', path, body);
      this.messages.done(message ?? 'The next try is ordered.');
      return true;
    } catch (error) {
      this.fault.set(messageOf(error));
      return false;
    } finally {
      this.busy.set(false);
    }
  }
}
