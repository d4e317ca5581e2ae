import { inject, Injectable } from '@angular/core';
import { MessageService } from 'primeng/api';
import { messageOf } from './api';

/** Short messages at the foot of the window: what was done, what could not be done. */
@Injectable({ providedIn: 'root' })
export class Messages {
  private readonly service = inject(MessageService);

  done(detail: string): void {
    this.service.add({ severity: 'success', detail, life: 5000 });
  }

  failed(error: unknown): void {
    this.service.add({ severity: 'error', detail: messageOf(error), life: 12000 });
  }
}
