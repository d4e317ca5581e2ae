import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import type { SubjectList } from '@zinc/contract';
import { Api } from '../shared/api';
import { Messages } from '../shared/messages';
import { PlanDraft } from './plan-draft';

/** From so many subjects on they are found by typing. */
const MANY = 16;

/** What is made: subjects one by one, all of a list, or all with pictures of their own. */
@Component({
  selector: 'zs-plan-what',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <b class="grow">{{ draft.subjectIds().length }} of {{ draft.allSubjects().length }} subjects</b>
      <button class="b small" type="button" (click)="allOrNone()">{{ all() ? 'None' : 'All' }}</button>
    </div>
    <div class="row lists">
      <select class="t" aria-label="Subjects of a list" (change)="takeList($any($event.target))">
        <option value="" selected>a list …</option>
        @for (l of lists(); track l.id) {
          <option [value]="l.id">{{ l.name }}, {{ l.subjectIds.length }}</option>
        }
        <option value="pictures">those with pictures, to restyle</option>
      </select>
      <button
        class="b small"
        type="button"
        [disabled]="draft.subjectIds().length === 0"
        (click)="naming.set(!naming())"
        [attr.aria-expanded]="naming()"
      >
        Keep as a list
      </button>
    </div>
    @if (naming()) {
      <form class="row" (submit)="$event.preventDefault(); keep(listName.value)">
        <input #listName class="t" aria-label="Name of the list" placeholder="Winter roots" />
        <button class="b small main" type="submit">Keep</button>
      </form>
    }
    @if (draft.allSubjects().length > many) {
      <input
        class="t find"
        aria-label="Find a subject"
        placeholder="find a subject"
        [value]="words()"
        (input)="words.set($any($event.target).value)"
      />
    }
    <ul class="tags" aria-labelledby="p-what">
      @for (s of shown(); track s.id) {
        <li>
          <button type="button" [attr.aria-pressed]="draft.subjectIds().includes(s.id)" (click)="toggle(s.id)">
            {{ s.label }}
            @if (s.picture) {
              <span class="dim"> picture</span>
            }
          </button>
        </li>
      }
    </ul>
  `,
  styles: `
    .lists {
      margin: 6px 0;
    }
    .find {
      margin-bottom: 6px;
    }
    .tags {
      max-height: 190px;
      overflow: auto;
    }
  `,
  styleUrl: './plan-parts.css',
})
export class PlanWhat {
  readonly draft = inject(PlanDraft);
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  readonly many = MANY;
  readonly words = signal('');
  readonly naming = signal(false);
  private readonly kept = resource({
    loader: async () => (await this.api.get<{ items: SubjectList[] }>('/subject-lists')).items,
  });
  readonly lists = computed(() => (this.kept.hasValue() ? this.kept.value() : []));
  readonly all = computed(() => this.draft.subjectIds().length === this.draft.allSubjects().length);
  readonly shown = computed(() => {
    const words = this.words().trim().toLowerCase();
    return this.draft
      .allSubjects()
      .filter(s => !words || s.label.toLowerCase().includes(words) || s.tags?.some(t => t.toLowerCase().includes(words)));
  });

  toggle(id: string): void {
    this.draft.subjectIds.update(now =>
      now.includes(id)
        ? now.filter(x => x !== id)
        : this.draft
            .allSubjects()
            .map(s => s.id)
            .filter(x => x === id || now.includes(x)),
    );
  }

  allOrNone(): void {
    this.draft.subjectIds.set(this.all() ? [] : this.draft.allSubjects().map(s => s.id));
  }

  takeList(select: HTMLSelectElement): void {
    const { value } = select;
    select.value = '';
    if (value === 'pictures') {
      const ids = this.draft
        .allSubjects()
        .filter(s => s.picture)
        .map(s => s.id);
      if (ids.length === 0)
        return this.messages.done('No subject has a picture of its own yet. Give some one on the Wording page.');
      this.draft.kind.set('restyle');
      return this.draft.subjectIds.set(ids);
    }
    const list = this.lists().find(l => l.id === value);
    if (list) this.draft.subjectIds.set(list.subjectIds);
  }

  async keep(name: string): Promise<void> {
    try {
      const body = { name: name.trim(), subjectIds: [...this.draft.subjectIds()] };
      const { items } = await this.api.send<{ items: SubjectList[] }>('POST', '/subject-lists', body);
      this.kept.set(items);
      this.naming.set(false);
      this.messages.done(`“${body.name}” is kept as a list.`);
    } catch (error) {
      this.messages.failed(error);
    }
  }
}
