import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { planSchema, ValidationError, type PlanInput, type PlannedCell, type PlanPreview, type Run } from '@zinc/contract';
import { cellKey, seedFor, slotsOf, type Finding } from '@zinc/core';
import { looks } from '../mix/looks.store';
import { Api, ApiError, problemOf } from '../shared/api';
import { writtenSpan } from '../shared/dates';
import { Keys } from '../shared/keys';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { subjects, templates } from '../wording/wording.store';
import { runs } from './runs.store';

/** The plan, written out like a job ticket and editable in place; beside it the run as a grid of empty cells, preflight, and every final text. */
@Component({
  selector: 'zs-plan',
  imports: [RouterLink, StateView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan.page.html',
  styleUrl: './plan.page.css',
})
export class PlanPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  /** Looks to start with, ids with commas between. */
  readonly looks = input<string>();
  readonly allSubjects = this.store.selectSignal(subjects.all);
  readonly allLooks = this.store.selectSignal(looks.all);
  readonly allTemplates = this.store.selectSignal(templates.all);
  readonly house = this.store.selectSignal(sessionFeature.selectHouse);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  private readonly statuses = [
    this.store.selectSignal(subjects.status),
    this.store.selectSignal(looks.status),
    this.store.selectSignal(templates.status),
  ];
  readonly ready = computed(() => this.statuses.every(s => s() === 'ready') && this.house() !== null);

  readonly name = signal('');
  readonly subjectIds = signal<readonly string[]>([]);
  readonly lookIds = signal<readonly string[]>([]);
  readonly templateId = signal('');
  readonly fills = signal<Partial<Record<string, string>>>({});
  readonly formatId = signal('');
  readonly takes = signal('3');
  readonly seedPolicy = signal<PlanInput['seedPolicy']>('subject');
  readonly seed = signal(String(1 + Math.floor(Math.random() * 9999)));
  readonly strength = signal('');
  readonly struckOut = signal<ReadonlySet<string>>(new Set());

  readonly preview = signal<PlanPreview | null>(null);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly asking = signal(false);
  readonly starting = signal(false);
  readonly reading = signal(false);
  private begun = false;
  private asked = 0;

  readonly template = computed(() => this.allTemplates().find(t => t.id === this.templateId()) ?? null);
  readonly format = computed(() => this.house()?.formats.find(f => f.id === this.formatId()) ?? null);
  readonly openSlots = computed(() => {
    const t = this.template();
    if (!t) return [];
    return slotsOf(t.text)
      .filter(n => n !== 'subject')
      .map(n => t.slots.find(s => s.name === n) ?? { name: n, kind: 'text' as const, choices: [], default: '' });
  });
  readonly chosenSubjects = computed(() => this.subjectIds().flatMap(id => this.allSubjects().filter(s => s.id === id)));
  readonly chosenLooks = computed(() => this.lookIds().flatMap(id => this.allLooks().filter(l => l.id === id)));
  readonly plan = computed(() => ({
    name: this.name(),
    subjectIds: [...this.subjectIds()],
    lookIds: [...this.lookIds()],
    templateId: this.templateId(),
    fills: this.fills(),
    formatId: this.formatId(),
    takes: this.takes().trim() === '' ? NaN : Number(this.takes()),
    seedPolicy: this.seedPolicy(),
    seed: this.seed().trim() === '' ? NaN : Number(this.seed()),
    strength: this.strength().trim() === '' ? null : Number(this.strength()),
    pressId: this.house()?.presses[0]?.id ?? '',
    struckOut: [...this.struckOut()],
    licenceOverrides: this.overrides(),
  }));
  readonly isLead = computed(() => this.person()?.role === 'lead');
  /** Licences that ended and are used all the same, and the one a reason is being written for. */
  readonly overrides = signal<{ referenceId: string; reason: string }[]>([]);
  readonly overriding = signal<string | null>(null);
  readonly reasonFault = signal('');
  readonly must = computed(() => this.preview()?.findings.filter(f => f.severity === 'must') ?? []);
  readonly flagged = computed(() => {
    const out = new Map<string, 'must' | 'note'>();
    for (const f of this.preview()?.findings ?? [])
      for (const key of f.cells) if (f.severity === 'must' || !out.has(key)) out.set(key, f.severity);
    return out;
  });
  readonly cellsByKey = computed(() => new Map<string, PlannedCell>((this.preview()?.cells ?? []).map(c => [c.key, c])));
  readonly time = computed(() => {
    const seconds = this.preview()?.seconds;
    return seconds === null || seconds === undefined ? 'not known yet' : writtenSpan(seconds);
  });
  readonly takeMarks = computed(() => Array.from({ length: Math.min(12, Math.max(1, Number(this.takes()) || 1)) }, (_, i) => i));
  /** The final text of every image that will be made, in the order of the grid. */
  readonly texts = computed(() => {
    const takes = Number(this.takes()) || 0;
    const live = (this.preview()?.cells ?? []).filter(c => !c.struckOut);
    return live.flatMap((cell, c) =>
      Array.from({ length: takes }, (_, i) => ({
        cell,
        number: c * takes + i + 1,
        take: i + 1,
        seed: seedFor(this.seedPolicy(), Number(this.seed()), cell.subjectId, cell.key, i + 1),
      })),
    );
  });
  readonly findingsLine = computed(() => {
    const n = this.preview()?.findings.length ?? 0;
    if (n === 0) return '';
    const must = this.must().length;
    return `${n === 1 ? '1 finding' : `${n} findings`}, ${must === 0 ? 'none must be settled' : `${must} must be settled`}`;
  });

  constructor() {
    inject(Keys).declare([{ key: 'T', does: 'Read all final texts', run: () => this.reading.update(v => !v) }]);
    effect(() => {
      if (!this.ready() || this.begun) return;
      this.begun = true;
      untracked(() => this.begin());
    });
    let timer: ReturnType<typeof setTimeout> | undefined;
    effect(() => {
      const plan = this.plan();
      if (!this.ready()) return;
      clearTimeout(timer);
      timer = setTimeout(() => void this.ask(plan), 250);
    });
    inject(DestroyRef).onDestroy(() => clearTimeout(timer));
  }

  private begin(): void {
    const house = this.house()!;
    const wanted = this.looks()?.split(',') ?? [];
    const known = this.allLooks().filter(l => wanted.includes(l.id));
    this.lookIds.set((known.length > 0 ? known : this.allLooks().slice(-1)).map(l => l.id));
    this.subjectIds.set(this.allSubjects().map(s => s.id));
    this.templateId.set(this.allTemplates()[0]?.id ?? '');
    this.formatId.set(house.formats[0]?.id ?? '');
    this.name.set(`Run of ${new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' }).format(new Date())}`);
  }

  keyOf(subjectId: string, lookId: string): string {
    return cellKey(subjectId, lookId, this.formatId());
  }

  /** Reads the plan back from the server; answers to an older plan are dropped. */
  private async ask(plan: ReturnType<typeof this.plan>): Promise<void> {
    const turn = ++this.asked;
    this.asking.set(true);
    try {
      const body = await planSchema.validate({ ...plan, name: plan.name || 'Run' });
      const preview = await this.api.send<PlanPreview>('POST', '/plans', body);
      if (turn !== this.asked) return;
      this.preview.set(preview);
      this.fault.set(null);
    } catch (error) {
      if (turn !== this.asked) return;
      this.preview.set(null);
      this.tell(error);
    } finally {
      if (turn === this.asked) this.asking.set(false);
    }
  }

  private tell(error: unknown): void {
    if (error instanceof ValidationError) this.fault.set({ field: error.path?.replace(/\[\d+\]$/, ''), message: error.message });
    else this.fault.set({ field: problemOf(error).field, message: problemOf(error).detail });
  }

  toggleSubject(id: string): void {
    this.subjectIds.update(now =>
      now.includes(id)
        ? now.filter(x => x !== id)
        : this.allSubjects()
            .map(s => s.id)
            .filter(x => x === id || now.includes(x)),
    );
  }

  allOrNone(): void {
    this.subjectIds.set(this.subjectIds().length === this.allSubjects().length ? [] : this.allSubjects().map(s => s.id));
  }

  toggleLook(id: string): void {
    this.lookIds.update(now => (now.includes(id) ? now.filter(x => x !== id) : [...now, id]));
  }

  fillOf(slot: { name: string; default?: string }): string {
    return this.fills()[slot.name] ?? slot.default ?? '';
  }

  setFill(name: string, event: Event): void {
    this.fills.update(f => ({ ...f, [name]: (event.target as HTMLInputElement).value }));
  }

  strike(key: string): void {
    this.struckOut.update(now => {
      const next = new Set(now);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  }

  mend(f: Finding): void {
    const mend = f.mend!;
    if (mend.action === 'strikeOut') this.struckOut.update(now => new Set([...now, ...f.cells]));
    else if (mend.action === 'restore') this.struckOut.update(now => new Set([...now].filter(k => !f.cells.includes(k))));
    else if (mend.action === 'overrideLicence') this.overriding.set(mend.referenceId!);
    else if (mend.action === 'openReference') void this.router.navigate(['/shelf', mend.referenceId]);
    else void this.router.navigate(['/wording'], { queryParams: { template: this.templateId() } });
  }

  keepReason(text: string): void {
    const reason = text.trim();
    this.reasonFault.set(reason.length < 8 ? 'Say why in a few words.' : '');
    if (this.reasonFault()) return;
    this.overrides.update(now => [...now, { referenceId: this.overriding()!, reason }]);
    this.overriding.set(null);
  }

  async start(): Promise<void> {
    this.starting.set(true);
    try {
      const run = await this.api.send<Run>('POST', '/runs', await planSchema.validate(this.plan()));
      this.store.dispatch(runs.actions.saved({ items: [run] }));
      await this.router.navigate(['/runs', run.id]);
    } catch (error) {
      this.tell(error);
      if (error instanceof ApiError && error.document.code === 'notPossible') void this.ask(this.plan());
    } finally {
      this.starting.set(false);
    }
  }
}
