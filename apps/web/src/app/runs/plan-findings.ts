import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Subject } from '@zinc/contract';
import type { Finding } from '@zinc/core';
import { Api } from '../shared/api';
import { Messages } from '../shared/messages';
import { subjects } from '../wording/wording.store';
import { PlanDraft } from './plan-draft';

/** What preflight found, each with its mend; an ended licence asks a lead for the reason it is used all the same. */
@Component({
  selector: 'zs-plan-findings',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (undrawable().length > 1) {
      <p>
        <button class="b small" type="button" (click)="leaveOut()">
          Leave all {{ undrawable().length }} out that cannot be drawn
        </button>
      </p>
    }
    <ul class="findings">
      @for (f of findings(); track f.message) {
        <li [class.must]="f.severity === 'must'">
          @if (f.mend?.action === 'overrideLicence' && overriding() === f.mend?.referenceId) {
            <form class="override grow" (submit)="$event.preventDefault(); keepReason(reason.value)">
              <label for="override-reason">{{ f.message }}</label>
              <input
                #reason
                class="t"
                id="override-reason"
                placeholder="Why it may be used all the same; this is kept with the run"
                [attr.aria-invalid]="fault() !== ''"
              />
              @if (fault()) {
                <span class="wrong" role="alert">{{ fault() }}</span>
              }
              <span class="row">
                <button class="b small main" type="submit">Keep the reason</button>
                <button class="b small" type="button" (click)="overriding.set(null)">Leave it</button>
              </span>
            </form>
          } @else {
            <span class="grow">{{ f.message }}</span>
            @if (f.mend && (f.mend.action !== 'overrideLicence' || isLead())) {
              <button class="b small" type="button" (click)="mend(f)">{{ f.mend.label }}</button>
            }
          }
        </li>
      } @empty {
        <li class="fine">Nothing stands in the way.</li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .findings {
      display: grid;
      gap: 8px;
    }
    li {
      display: flex;
      align-items: center;
      gap: 14px;
      padding: 9px 12px;
      background: var(--white);
      border-left: 4px solid var(--zinc);
    }
    .must {
      border-left-color: var(--vermilion);
    }
    .fine {
      border-left-color: var(--brine);
    }
    .override {
      display: grid;
      gap: 6px;
    }
    .override label {
      font-weight: 500;
    }
  `,
})
export class PlanFindings {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly messages = inject(Messages);
  private readonly draft = inject(PlanDraft);
  readonly findings = input.required<readonly Finding[]>();
  readonly isLead = input(false);
  /** Where a mend leads that is no change of the plan. */
  readonly goTo = output<{ path: string[]; query?: Record<string, string> }>();
  /** The licence a reason is being written for. */
  readonly overriding = signal<string | null>(null);
  readonly fault = signal('');

  /** Subjects that the press cannot draw: of several, all are left out at once. */
  readonly undrawable = computed(() => this.findings().filter(f => f.mend?.action === 'strikeOut'));

  leaveOut(): void {
    const cells = this.undrawable().flatMap(f => f.cells);
    this.draft.struckOut.update(now => new Set([...now, ...cells]));
  }

  mend({ mend, cells }: Finding): void {
    const { draft } = this;
    switch (mend!.action) {
      case 'strikeOut':
        return draft.struckOut.update(now => new Set([...now, ...cells]));
      case 'restore':
        return draft.struckOut.update(now => new Set([...now].filter(k => !cells.includes(k))));
      case 'overrideLicence':
        return this.overriding.set(mend!.referenceId!);
      case 'setValue':
        return draft.setValue(mend!.setting!, mend!.value!);
      case 'setFormat':
        return draft.formatIds.set([mend!.formatId!]);
      case 'dropSetting':
        return draft.settings.update(all => Object.fromEntries(Object.entries(all).filter(([k]) => k !== mend!.setting)));
      case 'openReference':
        return this.goTo.emit({ path: ['/shelf', mend!.referenceId!] });
      case 'prepareReference':
        return this.goTo.emit({ path: ['/shelf', mend!.referenceId!, 'prepare'] });
      case 'openLook':
        return this.goTo.emit({ path: ['/mix', mend!.lookId!] });
      case 'useOriginal':
        return void this.useOriginal(mend!.subjectId!);
      case 'openSubject':
        return this.goTo.emit({ path: ['/wording'], query: { subject: mend!.subjectId! } });
      case 'openWording':
        return this.goTo.emit({ path: ['/wording'], query: draft.templateId() ? { template: draft.templateId()! } : {} });
    }
  }

  /** The subject goes back to the picture that the chain began with; the plan is read again with it. */
  private async useOriginal(id: string): Promise<void> {
    try {
      const subject = await this.api.send<Subject>('POST', `/subjects/${id}/picture/original`);
      this.store.dispatch(subjects.actions.saved({ items: [subject] }));
      this.draft.touch();
      this.messages.done(
        subject.picture ? `${subject.label} has its original again.` : `${subject.label} is drawn from its words again.`,
      );
    } catch (error) {
      this.messages.failed(error);
    }
  }

  keepReason(text: string): void {
    const reason = text.trim();
    this.fault.set(reason.length < 8 ? 'Say why in a few words.' : '');
    if (this.fault()) return;
    this.draft.overrides.update(now => [...now, { referenceId: this.overriding()!, reason }]);
    this.overriding.set(null);
  }
}
