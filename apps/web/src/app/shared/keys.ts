import { inject, Injectable, signal } from '@angular/core';
import { DestroyRef } from '@angular/core';

export interface Key {
  key: string;
  does: string;
  run?: (event: KeyboardEvent) => void;
}

/** Whether the event comes from somewhere a person types or steers with the same keys. */
function isTyping(event: KeyboardEvent): boolean {
  const el = event.target as HTMLElement;
  return (
    el.matches?.('input, textarea, select, [contenteditable], [role="slider"], [role="combobox"], [role="listbox"] *') ?? false
  );
}

/** The keys of the page in view: pages say what they have, `?` shows them. */
@Injectable({ providedIn: 'root' })
export class Keys {
  readonly shown = signal(false);
  readonly page = signal<Key[]>([]);
  readonly always = signal<Key[]>([]);

  /** Declares the keys of a page for as long as it lives. Call in an injection context. */
  declare(keys: Key[]): void {
    this.page.set(keys);
    inject(DestroyRef).onDestroy(() => this.page.update(now => (now === keys ? [] : now)));
  }

  handle(event: KeyboardEvent): void {
    if (event.defaultPrevented || event.altKey || isTyping(event)) return;
    const combined =
      event.ctrlKey || event.metaKey
        ? `Ctrl ${event.key.toUpperCase()}`
        : event.key.length === 1
          ? event.key.toUpperCase()
          : event.key;
    const hit = [...this.page(), ...this.always()].find(
      k => k.run && k.key.split(' or ').some(name => name === combined || (name === 'Space' && event.key === ' ')),
    );
    if (!hit) return;
    event.preventDefault();
    hit.run!(event);
  }
}
