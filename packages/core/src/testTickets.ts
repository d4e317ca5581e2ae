import { neutralStyle } from './mix/style.ts';
import type { Ticket } from './ticket/types.ts';

/** A plain ticket for tests, new every time. */
export function testTicket(): Ticket {
  return {
    ticket: 1,
    press: { id: 'p', name: 'House press', version: '1', model: 'drawn', painterVersion: 3 },
    text: { parts: [], final: 'A radish', avoid: ['hands'], lettering: [] },
    subject: { id: 's', label: 'Radish', wording: 'radish', identity: 1 },
    contents: [],
    look: { id: 'l', version: 2, name: 'Block', mixer: 5, measure: 4, style: neutralStyle() },
    format: { name: 'Square', width: 512, height: 512, fit: 'crop' },
    never: [],
    seed: 11,
    take: 1,
    settings: { strength: 80 },
    parents: [],
  };
}
