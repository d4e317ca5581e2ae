import { ChangeDetectionStrategy, Component, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Slider } from 'primeng/slider';

/** One setting: its name, a slider and the figure itself, which can be typed. */
@Component({
  selector: 'zs-setting',
  imports: [FormsModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <label class="grow" [for]="id">{{ label() }}</label>
      <input
        [id]="id"
        inputmode="numeric"
        [value]="value()"
        [attr.aria-invalid]="fault() !== ''"
        (change)="type($any($event.target).value)"
      /><span class="unit">{{ unit() }}</span>
    </div>
    <p-slider
      [ngModel]="value()"
      (ngModelChange)="set.emit($event)"
      (onSlideEnd)="settled.emit()"
      [min]="from()"
      [max]="to()"
      [ariaLabel]="label()"
    />
    @if (fault()) {
      <span class="wrong" role="alert">{{ fault() }}</span>
    }
  `,
  styles: `
    :host {
      display: grid;
      /* So that the handle, wherever it stands, keeps clear of the figure above it. */
      gap: 13px;
      padding-bottom: 6px;
    }
    label {
      font-weight: 500;
    }
    input {
      width: 44px;
      padding: 1px 4px;
      font: inherit;
      text-align: right;
      background: none;
      border: 0;
      border-bottom: 1px solid var(--ink);
    }
    .unit {
      width: 16px;
    }
  `,
})
export class Setting {
  private static count = 0;
  readonly id = `setting-${++Setting.count}`;
  readonly label = input.required<string>();
  readonly value = input.required<number>();
  readonly from = input(0);
  readonly to = input(100);
  readonly unit = input('');
  readonly set = output<number>();
  readonly settled = output<void>();
  readonly fault = linkedSignal({ source: this.value, computation: () => '' });

  type(text: string): void {
    const v = Number(text);
    const fits = text.trim() !== '' && Number.isInteger(v) && v >= this.from() && v <= this.to();
    this.fault.set(fits ? '' : `A whole number from ${this.from()} to ${this.to()}.`);
    if (!fits) return;
    this.set.emit(v);
    this.settled.emit();
  }
}
