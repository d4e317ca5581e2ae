import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, model, signal } from '@angular/core';
import type { ProofFindings } from '@zinc/contract';
import { LETTERING_FOUND, type Region } from '@zinc/core';
import { Api, messageOf } from '../shared/api';

/** A place on the picture that something was found at. */
export interface Found {
  kind: 'leak' | 'echo' | 'lettering';
  place: Region;
  says: string;
}

export function foundIn({ leaks, echoes, lettering }: ProofFindings): Found[] {
  return [
    ...leaks.flatMap(l =>
      l.places.map((place): Found => ({
        kind: 'leak',
        place,
        says: `${(place.share * 100).toFixed(1)} % of the picture, a colour of “${l.source}”`,
      })),
    ),
    ...lettering.map((l): Found => ({ kind: 'lettering', place: l, says: `${l.letters} marks that look like letters` })),
    ...echoes.map((e): Found => ({ kind: 'echo', place: e.here, says: `repeats a shape of “${e.source}”` })),
  ];
}

/** What a proof shows of its sources that nobody wanted: said in words, and marked on the picture while it is looked at. */
@Component({
  selector: 'zs-findings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (found(); as f) {
      @for (l of f.leaks; track l.source) {
        <p>
          <b>Leak:</b> {{ (l.share * 100).toFixed(1) }} % of the picture has a colour of “{{ l.source }}”, which was to give no
          colours. The squares mark where most of it is.
        </p>
      }
      @for (e of f.echoes; track $index) {
        <p><b>Echo:</b> the framed part repeats a shape of “{{ e.source }}” ({{ (e.match * 100).toFixed(0) }} % alike).</p>
      }
      @for (l of f.lettering; track $index) {
        <p>
          <b>Lettering:</b> {{ l.letters }} marks in a line look like letters, and none were wanted. Such a find is right about
          {{ right }} times of 100, and {{ missed }} of 100 pieces of lettering are missed.
        </p>
      }
      @if (f.leaks.length + f.echoes.length + f.lettering.length === 0) {
        <p>No colour of a source leaked into it, no shape of a source turns up, and nothing looks like lettering.</p>
      } @else {
        <button class="b small" type="button" (click)="marks.set(null)">Take the marks off</button>
      }
    } @else {
      <button class="b small" type="button" [disabled]="looking()" (click)="look()">
        {{ looking() ? 'Looking …' : 'Look for leak, echo and lettering' }}
      </button>
      @if (fault()) {
        <p class="wrong" role="alert">{{ fault() }}</p>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      justify-items: start;
    }
  `,
})
export class Findings {
  private readonly api = inject(Api);
  readonly proofId = input.required<string>();
  readonly marks = model.required<readonly Found[] | null>();
  readonly found = linkedSignal<string, ProofFindings | null>({ source: this.proofId, computation: () => null });
  readonly looking = signal(false);
  readonly fault = signal('');
  readonly right = Math.round(LETTERING_FOUND.precision * 100);
  readonly missed = Math.round((1 - LETTERING_FOUND.recall) * 100);

  async look(): Promise<void> {
    this.looking.set(true);
    this.fault.set('');
    const id = this.proofId();
    try {
      const found = await this.api.get<ProofFindings>(`/proofs/${id}/findings`);
      if (id !== this.proofId()) return;
      this.found.set(found);
      this.marks.set(foundIn(found));
    } catch (error) {
      this.fault.set(messageOf(error));
    } finally {
      this.looking.set(false);
    }
  }
}
