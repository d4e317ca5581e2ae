import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { decodeWorkingCopy, resizePicture } from '@zinc/core';
import { hashText } from '@zinc/core/number/random';
import { findSubject } from '@zinc/scenes';
import { messageOf } from '../shared/api';
import { subjects } from '../wording/wording.store';
import type { Content, PictureMessage } from './painting';

/** Something laid on the bench, with its pixels when it is a picture. */
export interface Laid {
  content: Content;
  picture?: { key: string } & Omit<PictureMessage, 'kind' | 'key'>;
}

const SIDE = 900;
const SEED = 1907;

/** Chooses what stands in the middle of the yardstick: a subject of the house, its picture, or any photograph. */
@Component({
  selector: 'zs-lay-on',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label for="lay-on">On the bench</label>
    <select id="lay-on" class="t" (change)="choose($any($event.target).value)">
      <option value="" [selected]="!chosen()">the yardstick</option>
      @if (photo(); as p) {
        <option value="photo" [selected]="chosen()?.kind === 'picture'">{{ p }}</option>
      }
      @for (s of drawable(); track s.id) {
        <option [value]="s.id" [selected]="s.id === at()">{{ s.label }}</option>
      }
    </select>
    <label class="b small">
      A photo
      <input class="sr" type="file" accept="image/*" (change)="pick($event)" />
    </label>
    @if (problem()) {
      <span class="wrong" role="alert">{{ problem() }}</span>
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      align-items: center;
      gap: 8px;
    }
    select.t {
      width: 150px;
      min-height: 28px;
      padding: 2px 6px;
    }
  `,
})
export class LayOn {
  readonly chosen = input<Content | null>(null);
  readonly laid = output<Laid | null>();
  private readonly all = inject(Store).selectSignal(subjects.all);
  /** Subjects with a picture of their own, and those that can be drawn. */
  readonly drawable = computed(() => this.all().filter(s => s.picture || findSubject(s.wording).subject));
  readonly at = signal('');
  readonly photo = signal('');
  readonly problem = signal('');
  private own: Laid | null = null;

  async choose(id: string): Promise<void> {
    this.problem.set('');
    this.at.set(id);
    if (id === '') return this.laid.emit(null);
    if (id === 'photo') return this.laid.emit(this.own);
    const s = this.all().find(x => x.id === id)!;
    if (!s.picture)
      return this.laid.emit({
        content: { kind: 'subject', label: s.label, wording: s.wording, identity: hashText(s.id), seed: SEED },
      });
    try {
      const response = await fetch(`/api/pictures/${s.picture.sha256}/working`);
      if (!response.ok) throw new Error('The picture of this subject could not be fetched.');
      const { width, height, data } = decodeWorkingCopy(new Uint8Array(await response.arrayBuffer()));
      const key = s.picture.sha256;
      const pixels = data as Uint8ClampedArray<ArrayBuffer>;
      this.laid.emit({ content: { kind: 'picture', label: s.label, key }, picture: { key, width, height, pixels } });
    } catch (error) {
      this.problem.set(messageOf(error));
    }
  }

  /** A photograph of one's own: it stays in this browser. */
  async pick(event: Event): Promise<void> {
    const chooser = event.target as HTMLInputElement;
    const file = chooser.files?.[0];
    chooser.value = '';
    if (!file) return;
    this.problem.set('');
    try {
      const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
      const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
      const context = canvas.getContext('2d')!;
      context.drawImage(bitmap, 0, 0);
      const { width, height, data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
      const k = Math.min(1, SIDE / Math.max(width, height));
      const small =
        k < 1 ? resizePicture({ width, height, data }, Math.round(width * k), Math.round(height * k)) : { width, height, data };
      const key = `photo/${file.name}/${file.size}/${file.lastModified}`;
      this.photo.set(file.name);
      this.own = {
        content: { kind: 'picture', label: file.name, key },
        picture: { key, width: small.width, height: small.height, pixels: small.data as Uint8ClampedArray<ArrayBuffer> },
      };
      this.at.set('photo');
      this.laid.emit(this.own);
    } catch {
      this.problem.set(`${file.name} cannot be read as a picture here. JPEG, PNG, WebP and AVIF can.`);
    }
  }
}
