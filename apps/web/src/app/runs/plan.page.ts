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
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  planSchema,
  ValidationError,
  type PlanInput,
  type PlanPreview,
  type Run,
  type RunDetail,
  type SubjectList,
} from '@zinc/contract';
import { filter } from 'rxjs';
import { markWords, NO_LOOK, planDifferences, type Finding, type Plan, type Ticket } from '@zinc/core';
import { looks } from '../mix/looks.store';
import { Api, ApiError, problemOf } from '../shared/api';
import { writtenSpan } from '../shared/dates';
import { Keys } from '../shared/keys';
import { imagesAtOnce, pressDoing, sharesWith } from '../shared/presses';
import { Messages } from '../shared/messages';
import { sessionFeature } from '../shared/session.store';
import { StateView } from '../shared/state';
import { subjects, templates } from '../wording/wording.store';
import { PlanDraft } from './plan-draft';
import { PlanFindings } from './plan-findings';
import { PlanGrid } from './plan-grid';
import { PlanHold } from './plan-hold';
import { PlanSteps } from './plan-steps';
import { PlanWhat } from './plan-what';
import { PlanWords } from './plan-words';
import { runs } from './runs.store';

/** Fields that tell their fault beside themselves; others tell it above the grid. */
const AT_FIELD = [
  'subjectIds',
  'lookIds',
  'takes',
  'strength',
  'seed',
  'name',
  'formatIds',
  'pilot',
  'axes',
  'binding',
  'fills',
  'pressId',
  'model',
];

const FEW_SUBJECTS = 24;
/** How strongly, in per cent, a set follows an image that it is begun from. */
const FOLLOWS = '70';

/** What a marked word is told to be. */
const WHY: Partial<Record<Finding['code'], string>> = {
  contradiction: 'to be avoided, and said all the same',
  saidTwice: 'said twice',
  alreadyCarried: 'the sources of the look give this already',
  colourNotThere: 'the palette of the look has no such colour',
};

/** The plan, written out like a job ticket and editable in place; beside it the run as a grid of empty cells, preflight, and every final text. */
@Component({
  selector: 'zs-plan',
  imports: [RouterLink, StateView, PlanWhat, PlanWords, PlanHold, PlanSteps, PlanGrid, PlanFindings],
  providers: [PlanDraft],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan.page.html',
  styleUrls: ['./plan.page.css', './plan-parts.css'],
})
export class PlanPage {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);
  readonly draft = inject(PlanDraft);
  /** Looks to start with, ids with commas between. */
  readonly looks = input<string>();
  /** A run whose plan is taken up, to change one thing of it. */
  readonly again = input<string>();
  /** A run that a batch is added to. */
  readonly addTo = input<string>();
  /** A proof that the set follows, and what it is called. */
  readonly anchor = input<string>();
  readonly named = input<string>();
  /** What a recipe names and this house does not have. */
  readonly missing = signal<readonly string[]>([]);
  private readonly person = this.store.selectSignal(sessionFeature.selectPerson);
  readonly mayMake = computed(() => this.person()?.role !== 'reviewer');
  readonly isLead = computed(() => this.person()?.role === 'lead');
  private readonly statuses = [
    this.store.selectSignal(subjects.status),
    this.store.selectSignal(looks.status),
    this.store.selectSignal(templates.status),
  ];
  readonly ready = computed(() => this.statuses.every(s => s() === 'ready') && this.draft.house() !== null);

  readonly preview = signal<PlanPreview | null>(null);
  readonly fault = signal<{ field?: string; message: string } | null>(null);
  readonly asking = signal(false);
  readonly starting = signal(false);
  readonly reading = signal(false);
  /** The run that this plan was taken up from. */
  readonly before = signal<{ run: Run; plan: PlanInput } | null>(null);
  private begun = false;
  /** The navigation whose recipe was taken up. */
  private recipeOf: number | undefined;
  private asked = 0;
  readonly noLook = NO_LOOK;
  readonly has = computed(() => ({
    looks: this.draft.allLooks().length > 0,
    subjects: this.draft.allSubjects().length > 0,
  }));

  readonly models = computed(() => this.draft.press()?.capabilities?.models ?? []);
  /** What the press is doing, how much it makes at once, and who shares its work. */
  readonly pressLine = computed(() => {
    const press = this.draft.press();
    return press ? [pressDoing(press), `${imagesAtOnce(press)} at a time`, ...sharesWith(press)].join(', ') : '';
  });
  readonly must = computed(() => this.preview()?.findings.filter(f => f.severity === 'must') ?? []);
  readonly time = computed(() => {
    const seconds = this.preview()?.seconds;
    return seconds === null || seconds === undefined ? 'not known yet' : writtenSpan(seconds);
  });
  /** What preflight has to say of single words, by cell. */
  private readonly saidOf = computed(() => {
    const out = new Map<string, { word: string; why: string }[]>();
    for (const f of this.preview()?.findings ?? [])
      for (const word of f.words ?? [])
        for (const key of f.cells) out.set(key, [...(out.get(key) ?? []), { word, why: WHY[f.code] ?? f.message }]);
    return out;
  });
  /** The final text of every image that will be made, in the order of the grid. */
  readonly texts = computed(() => {
    const live = (this.preview()?.cells ?? []).filter(c => !c.struckOut);
    return live
      .flatMap(cell => {
        const parts = markWords(cell.parts, this.saidOf().get(cell.key) ?? []);
        return cell.seeds.map((seed, i) => ({ cell, parts, take: i + 1, seed }));
      })
      .map((t, i) => ({ ...t, number: i + 1 }));
  });
  readonly findingsLine = computed(() => {
    const n = this.preview()?.findings.length ?? 0;
    if (n === 0) return '';
    const must = this.must().length;
    return `${n === 1 ? '1 finding' : `${n} findings`}, ${must === 0 ? 'none must be settled' : `${must} must be settled`}`;
  });
  /** How this plan differs from the run it was taken up from. */
  readonly differences = computed(() => {
    const before = this.before();
    if (!before) return null;
    const byId = (list: readonly { id: string }[], name: (x: never) => string): Record<string, string> =>
      Object.fromEntries(list.map(x => [x.id, name(x as never)]));
    return planDifferences(before.plan as Plan, this.draft.plan() as Plan, {
      subjects: byId(this.draft.allSubjects(), (s: { label: string }) => s.label),
      looks: byId(this.draft.allLooks(), (l: { name: string }) => l.name),
      templates: byId(this.draft.allTemplates(), (t: { name: string }) => t.name),
      formats: byId(this.draft.house()?.formats ?? [], (f: { name: string }) => f.name),
      pressSettings: this.draft.press()?.capabilities?.settings as never,
      presses: byId(this.draft.house()?.presses ?? [], (p: { name: string }) => p.name),
      sourceNames: this.draft.sourceNames(),
    });
  });

  constructor() {
    inject(Keys).declare([{ key: 'T', does: 'Read all final texts', run: () => this.reading.update(v => !v) }]);
    effect(() => {
      if (!this.ready() || this.begun) return;
      this.begun = true;
      untracked(() => void this.begin());
    });
    let timer: ReturnType<typeof setTimeout> | undefined;
    effect(() => {
      const plan = this.draft.plan();
      this.draft.touched();
      if (!this.ready()) return;
      clearTimeout(timer);
      timer = setTimeout(() => void this.ask(plan), 250);
    });
    inject(DestroyRef).onDestroy(() => clearTimeout(timer));
    // A recipe may arrive while a plan is open already.
    this.router.events
      .pipe(
        filter(e => e instanceof NavigationEnd && this.begun),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.takeRecipe());
  }

  private async begin(): Promise<void> {
    const { draft } = this;
    const house = draft.house()!;
    const wanted = this.looks()?.split(',') ?? [];
    const known = draft.allLooks().filter(l => wanted.includes(l.id));
    draft.lookIds.set((known.length > 0 ? known : draft.allLooks().slice(-1)).map(l => l.id));
    draft.subjectIds.set(await this.firstSubjects());
    draft.templateId.set(draft.allTemplates()[0]?.id ?? null);
    draft.formatIds.set(house.formats.slice(0, 1).map(f => f.id));
    draft.name.set(`Run of ${new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long' }).format(new Date())}`);
    this.offered.set(draft.lookIds());
    const anchor = this.anchor();
    if (anchor) {
      draft.anchor.set(anchor);
      draft.anchorName.set(this.named() ?? 'the image chosen before');
      draft.bind.set(FOLLOWS);
    }
    this.takeRecipe();
    const taken = this.again() ?? this.addTo();
    if (!taken) return;
    try {
      const { run, batches } = await this.api.get<RunDetail>(`/runs/${taken}`);
      const { plan } = batches[batches.length - 1];
      draft.takeUp(plan);
      this.offered.set(draft.lookIds());
      draft.name.set(this.addTo() ? run.name : `${run.name}, again`.slice(0, 120));
      this.before.set({ run, plan });
    } catch (error) {
      this.messages.failed(error);
    }
  }

  /** Takes up the recipe that came with the last navigation, once. */
  private takeRecipe(): void {
    const { recipe, navigationId } = history.state as { recipe?: Ticket; navigationId?: number };
    if (!recipe || navigationId === this.recipeOf) return;
    this.recipeOf = navigationId;
    this.missing.set(this.draft.takeRecipe(recipe));
  }

  /** All subjects of a small house; of a larger one the first list, or else the first few. */
  private async firstSubjects(): Promise<string[]> {
    const all = this.draft.allSubjects().map(s => s.id);
    if (all.length <= FEW_SUBJECTS) return all;
    const lists = await this.api.get<{ items: SubjectList[] }>('/subject-lists').catch(() => ({ items: [] }));
    return lists.items[0]?.subjectIds ?? all.slice(0, FEW_SUBJECTS);
  }

  /** Reads the plan back from the server; answers to an older plan are dropped. */
  private async ask(plan: PlanInput): Promise<void> {
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
    const { field, message } =
      error instanceof ValidationError
        ? { field: error.path, message: error.message }
        : { field: problemOf(error).field, message: problemOf(error).detail };
    // Faults inside a list or a group are told at the whole of it.
    const whole = field?.replace(/[[.].*$/, '').replace('alternatives', 'fills');
    this.fault.set({ field: whole, message });
  }

  faultAt(field: string): string {
    const f = this.fault();
    return f?.field === field ? f.message : '';
  }

  readonly faultAbove = computed(() => {
    const f = this.fault();
    return f && !AT_FIELD.includes(f.field ?? '') ? f.message : '';
  });

  /** Looks in the order they are offered: those that were chosen at the start come first, and nothing moves after. */
  readonly offered = signal<readonly string[]>([]);
  readonly offeredLooks = computed(() => {
    const first = this.offered();
    const all = this.draft.allLooks();
    return [...first.flatMap(id => all.find(l => l.id === id) ?? []), ...all.filter(l => !first.includes(l.id))];
  });

  toggleLook(id: string): void {
    this.draft.lookIds.update(now => (now.includes(id) ? now.filter(x => x !== id) : [...now, id]));
  }

  toggleFormat(id: string): void {
    const order = this.draft.house()!.formats.map(f => f.id);
    this.draft.formatIds.update(now => order.filter(x => (x === id ? !now.includes(id) : now.includes(x))));
  }

  setOf(key: string): string {
    const value = this.draft.settings()[key];
    return value === undefined ? '' : String(value);
  }

  setSetting(key: string, type: string, text: string): void {
    const value = text.trim();
    this.draft.settings.update(all => {
      const rest = Object.fromEntries(Object.entries(all).filter(([k]) => k !== key));
      if (value === '') return rest;
      return {
        ...rest,
        [key]: type === 'percent' || type === 'integer' ? Number(value) : type === 'boolean' ? value === 'true' : value,
      };
    });
  }

  goTo({ path, query }: { path: string[]; query?: Record<string, string> }): void {
    void this.router.navigate(path, { queryParams: query });
  }

  async start(): Promise<void> {
    this.starting.set(true);
    try {
      const to = this.addTo();
      const body = await planSchema.validate(this.draft.plan());
      const run = await this.api.send<Run>('POST', to ? `/runs/${to}/batches` : '/runs', body);
      this.store.dispatch(runs.actions.saved({ items: [run] }));
      await this.router.navigate(['/runs', run.id]);
    } catch (error) {
      this.tell(error);
      if (error instanceof ApiError && error.document.code === 'notPossible') void this.ask(this.draft.plan());
    } finally {
      this.starting.set(false);
    }
  }
}
