import { neutralStyle } from '../mix/style.ts';
import { testTicket } from '../testTickets.ts';
import { ticketDifferences } from './differences.ts';
import type { Ticket } from './types.ts';

const ticket = testTicket();

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
