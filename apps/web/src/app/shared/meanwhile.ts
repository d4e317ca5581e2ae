import { ChangeDetectionStrategy, Component, output } from '@angular/core';

/** Someone changed what is being written here: theirs can be taken, or mine kept to be saved over it. */
@Component({
  selector: 'zs-meanwhile',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>Someone changed this meanwhile. What you wrote is still here.</p>
    <div class="row">
      <button class="b small" type="button" (click)="theirs.emit()">Show theirs</button>
      <button class="b small" type="button" (click)="mine.emit()">Go on with mine</button>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      padding: 9px 10px;
      background: var(--white);
      border-left: 4px solid var(--vermilion);
    }
  `,
  host: { role: 'status' },
})
export class Meanwhile {
  readonly theirs = output<void>();
  readonly mine = output<void>();
}
