import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Router } from '@angular/router';
import { StateView } from './state';

@Component({
  selector: 'zs-not-found',
  imports: [StateView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<zs-state kind="empty" title="There is no such page" action="Go to the shelf" (act)="router.navigateByUrl('/shelf')"
    >The address may be old or mistyped.</zs-state
  >`,
})
export class NotFoundPage {
  readonly router = inject(Router);
}
