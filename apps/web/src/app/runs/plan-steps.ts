import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FACETS, NO_LOOK, type Axis, type SettingValue } from '@zinc/core';
import { PlanDraft } from './plan-draft';

interface Steppable {
  setting: string;
  label: string;
  hint: string;
}

/** What a value means as it is written: a number where the setting is one. */
function valueOf(setting: string, text: string): SettingValue {
  const plain = text.trim().replace(/\s*%$/, '');
  if (['facets', 'press', 'model'].includes(setting) || setting.startsWith('slot:')) return plain.replace(/\s*\+\s*/g, '+');
  return plain !== '' && Number.isFinite(Number(plain)) ? Number(plain) : plain;
}

/** The test strip of a plan: one setting, or two, stepped through values with all else equal and the same seed. */
@Component({
  selector: 'zs-plan-steps',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="ready" role="group" aria-label="Ready-made strips">
      @for (r of ready(); track r.name) {
        <button class="b small" type="button" (click)="take(r)">{{ r.name }}</button>
      }
    </div>
    @for (a of draft.axes(); track a.setting; let i = $index) {
      <div class="axis">
        <select class="t" [attr.aria-label]="'Setting ' + (i + 1) + ' to step'" (change)="choose(i, $any($event.target).value)">
          @for (s of steppable(); track s.setting) {
            <option [value]="s.setting" [selected]="s.setting === a.setting">{{ s.label }}</option>
          }
        </select>
        <input
          class="t"
          [attr.aria-label]="'Values of setting ' + (i + 1)"
          [value]="textOf(a)"
          (change)="setValues(i, $any($event.target).value)"
          [placeholder]="hintOf(a.setting)"
        />
        <button class="b small" type="button" (click)="remove(i)" [attr.aria-label]="'Step setting ' + (i + 1) + ' no more'">
          ×
        </button>
      </div>
    }
    @if (draft.axes().length < 2) {
      <button class="b small" type="button" (click)="add()">
        {{ draft.axes().length === 0 ? 'Step a setting' : 'Step a second one' }}
      </button>
    }
    @if (draft.axes().length > 0) {
      <p class="hint">All else stays equal, and every value has the same seeds. Write values with commas between.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .ready {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    .axis {
      display: grid;
      grid-template-columns: 1fr 1.2fr auto;
      gap: 5px;
    }
  `,
})
export class PlanSteps {
  readonly draft = inject(PlanDraft);
  /** What a hand last wrote, as it was written, so that a typing error stays to be mended. */
  private readonly written = signal<Readonly<Record<string, string>>>({});

  private readonly presses = computed(() => this.draft.presses());
  private readonly models = computed(() => this.draft.press()?.capabilities?.models ?? []);
  readonly steppable = computed((): Steppable[] => [
    { setting: 'strength', label: 'Strength', hint: '40, 60, 80' },
    { setting: 'bind', label: 'Bind', hint: '0, 50, 100' },
    { setting: 'fidelity', label: 'Fidelity', hint: '0, 50, 90' },
    { setting: 'facets', label: 'Facets', hint: 'colour, line+texture' },
    { setting: 'lookVersion', label: 'Version of the look', hint: '1, 2' },
    ...(this.presses().length > 1
      ? [
          {
            setting: 'press',
            label: 'Press',
            hint: this.presses()
              .map(p => p.name)
              .join(', '),
          },
        ]
      : []),
    ...(this.models().length > 1 ? [{ setting: 'model', label: 'Model of the press', hint: this.models().join(', ') }] : []),
    ...this.draft.pressSettings().map(s => ({
      setting: `press:${s.key}`,
      label: s.label,
      hint: s.type === 'percent' ? '0, 50, 100' : (s.choices ?? []).join(', '),
    })),
    ...Object.entries(this.draft.sourceNames()).map(([id, name]) => ({
      setting: `parts:${id}`,
      label: `Parts of ${name}`,
      hint: '0, 2, 4',
    })),
  ]);

  readonly ready = computed((): { name: string; axes: Axis[]; looks?: string[] }[] => [
    { name: 'Strength ladder', axes: [{ setting: 'strength', values: [20, 40, 60, 80, 100] }] },
    { name: 'Look off and on', axes: [], looks: [NO_LOOK, ...this.draft.lookIds().filter(id => id !== NO_LOOK)] },
    { name: 'Bound and not', axes: [{ setting: 'bind', values: [0, 100] }] },
    { name: 'Every facet alone', axes: [{ setting: 'facets', values: [...FACETS, FACETS.join('+')] }] },
  ]);

  textOf(a: Axis): string {
    return this.written()[a.setting] ?? a.values.map(v => this.nameOf(a.setting, v)).join(', ');
  }

  hintOf(setting: string): string {
    return this.steppable().find(s => s.setting === setting)?.hint ?? '';
  }

  take({ axes, looks }: { axes: Axis[]; looks?: string[] }): void {
    this.written.set({});
    this.draft.kind.set('testStrip');
    this.draft.axes.set(axes);
    if (looks) this.draft.lookIds.set(looks);
    if (this.draft.takes() !== '1') this.draft.takes.set('1');
  }

  add(): void {
    const used = new Set(this.draft.axes().map(a => a.setting));
    const next = this.steppable().find(s => !used.has(s.setting))!;
    this.draft.kind.set('testStrip');
    this.draft.axes.update(all => [...all, { setting: next.setting, values: this.parse(next.setting, next.hint) }]);
  }

  choose(i: number, setting: string): void {
    const values = this.parse(setting, this.hintOf(setting));
    this.draft.axes.update(all => all.map((a, k) => (k === i ? { setting, values } : a)));
  }

  setValues(i: number, text: string): void {
    const { setting } = this.draft.axes()[i];
    this.written.update(w => ({ ...w, [setting]: text }));
    this.draft.axes.update(all => all.map((a, k) => (k === i ? { setting, values: this.parse(setting, text) } : a)));
  }

  remove(i: number): void {
    this.draft.axes.update(all => all.filter((_, k) => k !== i));
    if (this.draft.axes().length === 0) this.draft.kind.set('set');
  }

  private parse(setting: string, text: string): SettingValue[] {
    return text
      .split(/[,\n]/)
      .filter(v => v.trim() !== '')
      .map(v => valueOf(setting, v))
      .map(v =>
        setting === 'press' ? (this.presses().find(p => p.name.toLowerCase() === String(v).toLowerCase())?.id ?? v) : v,
      );
  }

  /** A press is written by its name; all else as it is. */
  private nameOf(setting: string, value: SettingValue): string {
    return (setting === 'press' && this.presses().find(p => p.id === value)?.name) || String(value);
  }
}
