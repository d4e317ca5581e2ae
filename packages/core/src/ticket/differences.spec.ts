import { neutralStyle } from '../mix/style.ts';
import { ticketDifferences } from './differences.ts';
import type { Ticket } from './types.ts';

const ticket: Ticket = {
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

describe('Tickets side by side', () => {
  it('that are the same differ in nothing', () => {
    expect(ticketDifferences([ticket, { ...ticket }])).toEqual([]);
    expect(ticketDifferences([ticket])).toEqual([]);
    expect(ticketDifferences([])).toEqual([]);
  });
  it('tell only what differs, each with what every one of them has', () => {
    const other: Ticket = {
      ...ticket,
      seed: 12,
      settings: { strength: 60, scatter: 20 },
      fidelity: { subject: 90, ground: 10 },
    };
    expect(ticketDifferences([ticket, other, ticket])).toEqual([
      { what: 'Strength', values: ['80 %', '60 %', '80 %'] },
      { what: 'Fidelity', values: ['left to the look', '90 % subject, 10 % ground', 'left to the look'] },
      { what: 'Seed', values: ['11', '12', '11'] },
      { what: 'scatter', values: ['none', '20', 'none'] },
    ]);
  });
  it('tell two styles of one name apart', () => {
    const style = { ...neutralStyle(), palette: [{ L: 0.5, a: 0, b: 0, share: 1 }] };
    const [difference, ...more] = ticketDifferences([ticket, { ...ticket, look: { ...ticket.look, style } }]);
    expect(difference.what).toBe('Style');
    expect(more).toEqual([]);
  });
});
