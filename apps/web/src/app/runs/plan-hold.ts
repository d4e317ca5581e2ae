import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { SHARES, type Box, type Share } from '@zinc/core';
import { Api, problemOf } from '../shared/api';
import { galleyFeature } from '../shared/galley.store';
import { Thumb } from '../shared/thumb';
import { PlanDraft } from './plan-draft';

/** Areas that are often left clear for type, as parts of the frame. */
const AREAS: readonly { name: string; box: Box }[] = [
  { name: 'above', box: { x: 0, y: 0, width: 1, height: 0.22 } },
  { name: 'below', box: { x: 0, y: 0.78, width: 1, height: 0.22 } },
  { name: 'left', box: { x: 0, y: 0, width: 0.3, height: 1 } },
  { name: 'right', box: { x: 0.7, y: 0, width: 0.3, height: 1 } },
];

/** Where a mark is often put; it is as large as fits there. */
const PLACES: readonly { name: string; box: Box }[] = [
  { name: 'low right', box: { x: 0.74, y: 0.8, width: 0.22, height: 0.16 } },
  { name: 'low left', box: { x: 0.04, y: 0.8, width: 0.22, height: 0.16 } },
  { name: 'high right', box: { x: 0.74, y: 0.04, width: 0.22, height: 0.16 } },
  { name: 'high left', box: { x: 0.04, y: 0.04, width: 0.22, height: 0.16 } },
  { name: 'across the foot', box: { x: 0.2, y: 0.82, width: 0.6, height: 0.14 } },
];

/** What must stay: what the set shares and how strongly, how closely content is kept, marks placed exactly, areas left clear. */
@Component({
  selector: 'zs-plan-hold',
  imports: [Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="line">
      <label for="p-bind">Bind</label>
      <input
        class="t"
        id="p-bind"
        inputmode="numeric"
        [value]="draft.bind()"
        (change)="draft.bind.set($any($event.target).value.trim() || '0')"
      />
      <span class="dim">{{ bound() ? '% to ' + to() : '%: each image by itself' }}</span>
    </div>
    @if (bound()) {
      <ul class="tags" aria-label="What the set shares">
        @for (s of shares; track s) {
          <li>
            <button type="button" [attr.aria-pressed]="draft.share().includes(s)" (click)="toggle(s)">{{ s }}</button>
          </li>
        }
      </ul>
      <select class="t" aria-label="What the set follows" (change)="draft.anchor.set($any($event.target).value || null)">
        <option value="" [selected]="!draft.anchor()">follows its own middle</option>
        @for (p of proofs(); track p.id) {
          <option [value]="p.id" [selected]="p.id === draft.anchor()">follows {{ p.name }}</option>
        }
      </select>
      <input
        class="t wide"
        aria-label="What is said of the anchor, and so of every image"
        placeholder="what it shows that all shall share, such as: in morning light"
        [value]="draft.anchorWords()"
        (change)="draft.anchorWords.set($any($event.target).value)"
      />
      @if (proofs().length === 0) {
        <p class="hint">To follow one image, carry a proof in the galley.</p>
      }
    }
    <div class="line">
      <label for="p-keep">Keep</label>
      <input
        class="t"
        id="p-keep"
        inputmode="numeric"
        placeholder="–"
        [value]="draft.fidelity().subject"
        (change)="setFidelity('subject', $any($event.target).value)"
      />
      <span class="dim">% of the subject’s form,</span>
      <input
        class="t"
        inputmode="numeric"
        placeholder="–"
        aria-label="How much of the ground’s form is kept"
        [value]="draft.fidelity().ground"
        (change)="setFidelity('ground', $any($event.target).value)"
      />
      <span class="dim">% of the ground’s</span>
    </div>
    @if (draft.withPictures()) {
      <div class="line">
        <label for="p-read">Pictures</label>
        <select class="t read" id="p-read" (change)="setRead($any($event.target).value)">
          <option value="areas" [selected]="draft.content().read === 'areas'">read as areas</option>
          <option value="tone" [selected]="draft.content().read === 'tone'">read as tone</option>
          <option value="outline" [selected]="draft.content().read === 'outline'">read as outline</option>
        </select>
        <input
          class="t"
          inputmode="numeric"
          aria-label="How much of the content pictures is kept"
          [value]="draft.content().strength"
          (change)="setContent($any($event.target).value)"
        />
        <span class="dim">%</span>
      </div>
    }
    <div class="line">
      <span class="label" id="p-mark">Mark</span>
      @for (m of draft.marks(); track $index; let i = $index) {
        <zs-thumb class="mark" [sha]="m.sha256" alt="The mark" [side]="96" [width]="34" [height]="34" />
        <select class="t where" aria-label="Where the mark is placed" (change)="move(i, $any($event.target).value)">
          @for (p of places; track p.name) {
            <option [value]="p.name" [selected]="isAt(m.box, p.box)">{{ p.name }}</option>
          }
        </select>
        <button class="b small" type="button" aria-label="Take the mark away" (click)="unplace(i)">×</button>
      }
      @if (draft.marks().length < 4) {
        <label class="b small">
          {{ draft.marks().length > 0 ? 'Another' : 'Place a mark exactly' }}
          <input class="sr" type="file" accept=".svg,.png,.webp" (change)="place($event)" />
        </label>
      }
      @if (problem()) {
        <p class="wrong" role="alert">{{ problem() }}</p>
      }
    </div>
    <div class="line">
      <span class="label" id="p-clear">Leave clear</span>
      <ul class="tags" aria-labelledby="p-clear">
        @for (a of areas; track a.name) {
          <li>
            <button type="button" [attr.aria-pressed]="isClear(a.box)" (click)="toggleArea(a.box)">{{ a.name }}</button>
          </li>
        }
      </ul>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 7px;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 7px;
    }
    .line > label,
    .line > .label {
      min-width: 58px;
    }
    input.t {
      width: 48px;
    }
    input.t.wide {
      width: 100%;
    }
    .read,
    .where {
      width: 130px;
    }
    .mark {
      width: 34px;
      height: 34px;
    }
    label.b:focus-within {
      outline: 2px solid var(--ink);
    }
  `,
  styleUrl: './plan-parts.css',
})
export class PlanHold {
  readonly draft = inject(PlanDraft);
  readonly shares = SHARES;
  readonly areas = AREAS;
  private readonly things = inject(Store).selectSignal(galleyFeature.selectThings);
  /** Proofs carried in the galley, and the one that is followed. */
  readonly proofs = computed(() => {
    const carried = this.things().filter(t => t.kind === 'proof');
    const anchor = this.draft.anchor();
    return anchor && !carried.some(t => t.id === anchor) ? [...carried, { id: anchor, name: this.draft.anchorName() }] : carried;
  });
  readonly bound = computed(() => !['', '0'].includes(this.draft.bind()) || this.draft.axes().some(a => a.setting === 'bind'));
  readonly to = computed(() => (this.draft.anchor() ? 'one image' : 'each other'));

  toggle(s: Share): void {
    this.draft.share.update(now => SHARES.filter(x => (x === s ? !now.includes(s) : now.includes(x))));
  }

  setFidelity(which: 'subject' | 'ground', value: string): void {
    this.draft.fidelity.update(f => ({ ...f, [which]: value.trim() }));
  }

  setRead(read: 'areas' | 'tone' | 'outline'): void {
    this.draft.content.update(c => ({ ...c, read }));
  }

  setContent(strength: string): void {
    this.draft.content.update(c => ({ ...c, strength: strength.trim() }));
  }

  readonly places = PLACES;
  readonly problem = signal('');
  private readonly api = inject(Api);

  isAt(p: Box, q: Box): boolean {
    return p.x === q.x && p.y === q.y && p.width === q.width;
  }

  async place(event: Event): Promise<void> {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    chooser.value = '';
    if (!file) return;
    this.problem.set('');
    try {
      const { sha256 } = await this.api.upload<{ sha256: string }>('/marks', file);
      this.draft.marks.update(all => [...all, { sha256, box: PLACES[0].box }]);
    } catch (error) {
      this.problem.set(problemOf(error).detail);
    }
  }

  move(i: number, name: string): void {
    const { box } = PLACES.find(p => p.name === name)!;
    this.draft.marks.update(all => all.map((m, k) => (k === i ? { ...m, box } : m)));
  }

  unplace(i: number): void {
    this.draft.marks.update(all => all.filter((_, k) => k !== i));
  }

  isClear(box: Box): boolean {
    return this.draft.clear().some(b => JSON.stringify(b) === JSON.stringify(box));
  }

  toggleArea(box: Box): void {
    this.draft.clear.update(all =>
      this.isClear(box) ? all.filter(b => JSON.stringify(b) !== JSON.stringify(box)) : [...all, box],
    );
  }
}
