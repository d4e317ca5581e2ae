import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';
import type { Recipe } from '@zinc/contract';
import { Api } from '../shared/api';
import { Messages } from '../shared/messages';

/** A picture dropped on the window where no page takes it: it lands on its proof, or on a plan made of the recipe inside it. */
@Injectable({ providedIn: 'root' })
export class DroppedPicture {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly messages = inject(Messages);

  over(event: DragEvent): void {
    // A page that takes files has said so already.
    if (event.defaultPrevented || !event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    event.dataTransfer.dropEffect = 'copy';
  }

  async take(event: DragEvent): Promise<void> {
    if (event.defaultPrevented || !event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    const [file] = event.dataTransfer.files;
    if (!file) return;
    try {
      const { proofId, ticket, says } = await this.api.upload<Recipe>('/recipes', file);
      if (proofId) await this.router.navigate(['/review/proof', proofId]);
      else if (ticket) await this.router.navigate(['/runs/new'], { state: { recipe: ticket }, onSameUrlNavigation: 'reload' });
      this.messages.done(proofId || ticket ? says : `${says} To keep it as a reference, drop it on the shelf.`);
    } catch (error) {
      this.messages.failed(error);
    }
  }
}
