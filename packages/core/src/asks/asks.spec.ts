import { neutralStyle } from '../mix/style.ts';
import { measure } from '../measure/measure.ts';
import { testTicket } from '../testTickets.ts';
import { sampleContent } from '../testPictures.ts';
import type { BindingSheet } from '../set/bind.ts';
import { applyAsk } from './applyAsk.ts';
import { readAsk } from './readAsk.ts';

const PAPER = { L: 0.95, a: 0, b: 0.01, share: 0.7 };
const RED = { L: 0.5, a: 0.17, b: 0.09, share: 0.3 };
const inked = () => {
  const ticket = testTicket();
  return { ...ticket, look: { ...ticket.look, style: { ...neutralStyle(), palette: [PAPER, RED], tone: [] } } };
};

describe('reading an ask', () => {
  const rows: [string, unknown[]][] = [
    ['no lettering', [{ kind: 'avoid', word: 'lettering' }]],
    ['Without any outlines', [{ kind: 'avoid', word: 'outlines' }]],
    ['no text', [{ kind: 'avoid', word: 'lettering' }]],
    ['ground lighter', [{ kind: 'ground', to: 1 }]],
    ['make the background a bit darker', [{ kind: 'ground', to: -1 }]],
    ['a yellow ground', [{ kind: 'ground', to: 'yellow' }]],
    ['the ground plain', [{ kind: 'style', word: 'bare ground' }]],
    ['less red', [{ kind: 'area', colour: 'red', factor: 0.5 }]],
    ['more detail', [{ kind: 'style', word: 'detailed' }]],
    ['fewer lines', [{ kind: 'style', word: 'no outline' }]],
    [
      'warmer and softer',
      [
        { kind: 'style', word: 'warm' },
        { kind: 'style', word: 'soft' },
      ],
    ],
    ['a stronger look', [{ kind: 'strength', by: 15 }]],
    ['strength 60 %', [{ kind: 'strength', to: 60 }]],
    ['closer to the photo', [{ kind: 'fidelity', by: 20 }]],
    ['a bit larger', [{ kind: 'size', factor: 1.2 }]],
    ['move it to the left', [{ kind: 'place', dx: -0.08, dy: 0 }]],
    ['engraved', [{ kind: 'style', word: 'engraved' }]],
    [
      'no lettering, ground lighter, fewer leaves',
      [
        { kind: 'avoid', word: 'lettering' },
        { kind: 'ground', to: 1 },
      ],
    ],
  ];
  for (const [words, changes] of rows)
    it(`understands “${words}”`, () => expect(readAsk(words).changes).toEqual(changes as never));

  it('says what it does not understand, in the words it was said in', () => {
    expect(readAsk('ground lighter, fewer Leaves; strength 400').left).toEqual(['fewer Leaves', 'strength 400']);
    // Words that would take the outlines away too are no answer to it.
    expect(readAsk('less hatching')).toEqual({ changes: [], left: ['less hatching'] });
    expect(readAsk('  ')).toEqual({ changes: [], left: [] });
  });
});

describe('what was asked, on a ticket', () => {
  it('changes nothing but what was asked: the seed stays', () => {
    const ticket = inked();
    const made = applyAsk(ticket, [{ kind: 'strength', to: 55 }]);
    expect(made.ticket).toEqual({ ...ticket, settings: { ...ticket.settings, strength: 55 } });
    expect(made.applied[0].says).toBe(`Strength goes from ${ticket.settings.strength} to 55 %.`);
  });

  it('keeps colours out by construction, and says when a word stands in the text only', () => {
    const { ticket, applied } = applyAsk(inked(), [
      { kind: 'avoid', word: 'green' },
      { kind: 'avoid', word: 'hats' },
    ]);
    expect(ticket.never.length).toBeGreaterThan(0);
    expect(ticket.text.avoid).toContain('hats');
    expect(applied.map(a => a.says)).toEqual([jasmine.stringMatching(/kept out/), jasmine.stringMatching(/in the text only/)]);
  });

  it('takes wanted lettering back when none is to be', () => {
    const ticket = inked();
    const made = applyAsk({ ...ticket, text: { ...ticket.text, lettering: ['SEEDS'] } }, [{ kind: 'avoid', word: 'lettering' }]);
    expect(made.ticket.text.lettering).toEqual([]);
  });

  it('makes the ground lighter, darker or another colour, and leaves other colours', () => {
    const groundOf = (to: string | number) => applyAsk(inked(), [{ kind: 'ground', to }]).ticket.look.style.palette;
    expect(groundOf(1)[0].L).toBeGreaterThan(PAPER.L);
    expect(groundOf(-1)[0].L).toBeLessThan(0.82);
    expect(groundOf('blue')[0].b).toBeLessThan(-0.04);
    expect(groundOf('blue')[0].L).toBeGreaterThan(0.65);
    expect(groundOf(1)[1]).toEqual(RED);
  });

  it('lets go of the colours of a bound set when they are changed', () => {
    const sheet = { share: ['palette', 'line'] } as BindingSheet;
    const { ticket, applied } = applyAsk({ ...inked(), binding: { sheet, amount: 60 } }, [{ kind: 'ground', to: -1 }]);
    expect(ticket.binding?.sheet.share).toEqual(['line']);
    expect(applied[0].says).toContain('no longer shares its colours');
  });

  it('says so when there is nothing that could change', () => {
    const plain = testTicket();
    plain.look.style = { ...neutralStyle(), palette: [] };
    const { applied, ticket } = applyAsk(plain, [
      { kind: 'ground', to: 1 },
      { kind: 'area', colour: 'red', factor: 2 },
      { kind: 'fidelity', by: 20 },
    ]);
    expect(applied.map(a => a.done)).toEqual([false, false, false]);
    expect(ticket).toBe(plain);
    expect(applyAsk(inked(), [{ kind: 'area', colour: 'blue', factor: 2 }]).applied[0].says).toContain('has no blue');
  });

  it('takes sides of a style from a picture and leaves the others', () => {
    const ticket = inked();
    const print = measure(sampleContent(96));
    const made = applyAsk(ticket, [{ kind: 'picture', sha256: 's', name: 'Almanac', facets: ['texture'] }], {
      prints: { s: print },
    });
    expect(made.ticket.look.style.palette).toEqual(ticket.look.style.palette);
    expect(made.ticket.look.style.amounts).not.toEqual(ticket.look.style.amounts);
    expect(made.applied[0].says).toContain('texture comes from “Almanac”');
  });

  it('moves a thing from where it sits', () => {
    const ticket = inked();
    const { ticket: made } = applyAsk(ticket, [
      { kind: 'size', factor: 1.2 },
      { kind: 'place', dx: 0.08, dy: 0 },
    ]);
    expect(made.look.style.framing?.seat).toEqual({ x: 0.58, y: 0.5, size: jasmine.any(Number) as unknown as number });
    expect(
      applyAsk({ ...ticket, contents: [{ sha256: 'c', strength: 100, read: 'areas' }] }, [{ kind: 'size', factor: 2 }]).applied[0]
        .done,
    ).toBe(false);
  });
});
