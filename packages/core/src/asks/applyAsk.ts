import { hexOfLab, labOfHex } from '../colour/oklab.ts';
import type { Lab } from '../image/types.ts';
import type { Framing, Seat } from '../framing/types.ts';
import { applyWords } from '../lexicon/applyWords.ts';
import { avoidedColours, colourNamed, onlyInText } from '../lexicon/avoid.ts';
import { groundColour, nearestColour, normaliseShares } from '../measure/palette.ts';
import type { Fingerprint, PaletteColour } from '../measure/types.ts';
import { mix } from '../mix/mix.ts';
import { STYLE_FIELDS, type Style, type StyleField } from '../mix/style.ts';
import { clamp } from '../number/scalar.ts';
import type { Ticket } from '../ticket/types.ts';
import { joinParts } from '../words/template.ts';
import type { AskChange } from './types.ts';

/** A change as it comes out on a ticket, in a plain sentence; `done` is false when the ticket has nothing that it could change. */
export interface Applied {
  change: AskChange;
  done: boolean;
  says: string;
}

const WHITE = '#fbfaf6';
const LIGHTEST = 0.975;
/** How far a step goes of the way to the lightest ground, and how much darker one gets. */
const LIGHTER = 0.6;
const DARKER = 0.16;
const NORMAL = { x: 0.5, y: 0.5, size: 0.72 };

/** What is measured of pictures: of the image asked about, and of those that changes name. */
export interface Known {
  own?: Fingerprint | null;
  prints?: Readonly<Record<string, Fingerprint>>;
}

/**
 * A ticket with what was asked. Everything else, the seed too, stays, so that two tries differ in nothing but the ask. `prints` are the
 * fingerprints of pictures that changes name, `own` that of the image asked about.
 */
export function applyAsk(
  ticket: Ticket,
  changes: readonly AskChange[],
  known: Known = {},
): { ticket: Ticket; applied: Applied[] } {
  const applied: Applied[] = [];
  let made = ticket;
  for (const change of changes) {
    const { says, ticket: next } = applyOne(made, change, known);
    applied.push({ change, done: next !== null, says });
    made = next ?? made;
  }
  return { ticket: made, applied };
}

interface One {
  ticket: Ticket | null;
  says: string;
}

function applyOne(ticket: Ticket, change: AskChange, { own, prints = {} }: Known): One {
  const { style } = ticket.look;
  switch (change.kind) {
    case 'avoid':
      return avoid(ticket, change.word);
    case 'style': {
      const { style: worded } = applyWords(style, [change.word]);
      return { ticket: withStyle(ticket, { ...style, ...worded }), says: `The style goes towards “${change.word}”.` };
    }
    case 'ground':
      return changeGround(ticket, change.to);
    case 'area':
      return changeArea(ticket, change.colour, change.factor);
    case 'strength': {
      const to = clamp(change.to ?? ticket.settings.strength + (change.by ?? 0), 0, 100);
      if (to === ticket.settings.strength) return { ticket: null, says: `Strength is at ${to} % already.` };
      return {
        ticket: { ...ticket, settings: { ...ticket.settings, strength: to } },
        says: `Strength goes from ${ticket.settings.strength} to ${to} %.`,
      };
    }
    case 'fidelity':
      return changeFidelity(ticket, change.by);
    case 'size':
    case 'place':
      return changeSeat(ticket, change, own?.framing?.seat ?? null);
    case 'drawing': {
      const parts = [...ticket.text.parts, { from: 'ask' as const, words: `, ${change.words}` }];
      return {
        ticket: { ...ticket, text: { ...ticket.text, parts, final: joinParts(parts) } },
        says: `The drawing is told: ${change.words}.`,
      };
    }
    case 'picture':
      return takeFrom(ticket, change, prints[change.sha256]);
  }
}

const withStyle = (ticket: Ticket, style: Style): Ticket => ({ ...ticket, look: { ...ticket.look, style } });

/** A ticket whose set no longer decides its colours. */
function freeColours(ticket: Ticket): Ticket {
  if (!ticket.binding) return ticket;
  const { sheet, amount } = ticket.binding;
  const share = sheet.share.filter(s => s !== 'palette' && s !== 'ground');
  return { ...ticket, binding: { amount, sheet: { ...sheet, share } } };
}

const ofTheSet = (ticket: Ticket): string =>
  ticket.binding?.sheet.share.some(s => s === 'palette' || s === 'ground')
    ? ' It no longer shares its colours with its set.'
    : '';

function avoid(ticket: Ticket, word: string): One {
  const { text } = ticket;
  if (text.avoid.includes(word)) return { ticket: null, says: `“${word}” is among what to avoid already.` };
  const lettering = word === 'lettering' ? [] : text.lettering;
  const never = [...ticket.never];
  for (const c of avoidedColours([word])) if (!never.some(n => n.hex === c.hex)) never.push(c);
  const bare = onlyInText([word]).length > 0 && word !== 'lettering';
  return {
    ticket: { ...ticket, text: { ...text, avoid: [...text.avoid, word], lettering }, never },
    says: bare
      ? `“${word}” joins what to avoid. The painter knows no such mark or colour, so it stands in the text only.`
      : `“${word}” is kept out.`,
  };
}

function changeGround(ticket: Ticket, to: string | number): One {
  const { style } = ticket.look;
  if (style.palette.length === 0)
    return { ticket: null, says: 'The look leaves colours as they are, so it has no ground to change. Say it of the drawing.' };
  const ground = groundColour(style.palette);
  const named = typeof to === 'string' ? tinted(labOfHex(to === 'white' ? WHITE : (colourNamed(to) ?? WHITE)), ground.L) : null;
  const step = typeof to === 'number' && to > 0 ? (LIGHTEST - ground.L) * LIGHTER : -DARKER;
  if (!named && Math.abs(step) < 0.008) return { ticket: null, says: 'The ground is as light as paper already.' };
  const next: PaletteColour = named
    ? { ...named, share: ground.share }
    : { ...ground, L: clamp(ground.L + step, 0.05, LIGHTEST) };
  const palette = style.palette.map(c => (c === ground ? next : c));
  // The tones of the look would bring the old ground back.
  const tone = style.tone.map(v => (v > (ground.L + mean(style.tone)) / 2 ? clamp(v + (next.L - ground.L), 0.02, 0.985) : v));
  return {
    ticket: freeColours(withStyle(ticket, { ...style, palette, tone })),
    says: `The ground goes from ${hexOfLab(ground)} to ${hexOfLab(next)}.${ofTheSet(ticket)}`,
  };
}

/** A colour as a ground for what stood on a ground of this lightness: much darker than that, things would drown in it. */
function tinted({ L, a, b }: Lab, ground: number): Lab {
  const lifted = Math.max(L, Math.min(0.8, ground - 0.16));
  const k = 1 - (0.55 * (lifted - L)) / Math.max(0.2, 1 - L);
  return { L: lifted, a: a * k, b: b * k };
}

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / Math.max(1, values.length);

function changeArea(ticket: Ticket, colour: string, factor: number): One {
  const { style } = ticket.look;
  const hex = colourNamed(colour);
  if (!hex || style.palette.length === 0)
    return { ticket: null, says: `The look leaves colours as they are; how much ${colour} there is comes from the subject.` };
  const wanted = labOfHex(hex);
  const at = nearestColour(wanted, style.palette);
  const found = style.palette[at];
  if (Math.hypot(found.a - wanted.a, found.b - wanted.b) > 0.11)
    return { ticket: null, says: `The look has no ${colour}; the nearest is ${hexOfLab(found)}.` };
  const palette = normaliseShares(style.palette.map((c, i) => (i === at ? { ...c, share: c.share * factor } : c)));
  const amounts = { ...style.amounts, shareAmount: Math.max(style.amounts.shareAmount, 0.7) };
  return {
    ticket: freeColours(withStyle(ticket, { ...style, palette, amounts })),
    says: `${hexOfLab(found)} takes ${factor > 1 ? 'more' : 'less'} of the area.${ofTheSet(ticket)}`,
  };
}

function changeFidelity(ticket: Ticket, by: number): One {
  if (ticket.contents.length === 0)
    return { ticket: null, says: 'This image was not made from a picture, so there is none to be closer to.' };
  const now = ticket.fidelity ?? { subject: 50, ground: 50 };
  const next = { subject: clamp(now.subject + by, 0, 100), ground: clamp(now.ground + by, 0, 100) };
  return {
    ticket: { ...ticket, fidelity: next },
    says: `Fidelity to the picture goes from ${now.subject} to ${next.subject} %.`,
  };
}

function changeSeat(ticket: Ticket, change: Extract<AskChange, { kind: 'size' | 'place' }>, sits: Seat | null): One {
  if (ticket.contents.length > 0)
    return { ticket: null, says: 'Things stand where they stand in the content picture; only a drawing can be moved.' };
  const { style } = ticket.look;
  const framing: Framing = style.framing ?? { margins: [0, 0, 0, 0], corner: 0, sheet: null, seat: null };
  const seat = framing.seat ?? sits ?? NORMAL;
  const next =
    change.kind === 'size'
      ? { ...seat, size: clamp(seat.size * change.factor, 0.2, 0.95) }
      : { ...seat, x: clamp(seat.x + change.dx, 0.15, 0.85), y: clamp(seat.y + change.dy, 0.15, 0.85) };
  return {
    ticket: withStyle(ticket, { ...style, framing: { ...framing, seat: next } }),
    says:
      change.kind === 'size'
        ? `It fills ${Math.round(next.size * 100)} % of the frame.`
        : `Its middle goes to ${Math.round(next.x * 100)} % across and ${Math.round(next.y * 100)} % down.`,
  };
}

function takeFrom(
  ticket: Ticket,
  { name, facets }: Extract<AskChange, { kind: 'picture' }>,
  print: Fingerprint | undefined,
): One {
  if (!print) return { ticket: null, says: `“${name}” is not measured.` };
  const { style } = ticket.look;
  const { style: given } = mix([{ fingerprint: print, parts: 1, facets }]);
  const amounts = { ...style.amounts };
  for (const key of Object.keys(STYLE_FIELDS) as StyleField[])
    if (facets.includes(STYLE_FIELDS[key].facet)) amounts[key] = given.amounts[key];
  const colour = facets.includes('colour');
  return {
    ticket: (colour ? freeColours : (t: Ticket) => t)(
      withStyle(ticket, {
        ...style,
        amounts,
        palette: colour ? given.palette : style.palette,
        tone: facets.includes('light') ? given.tone : style.tone,
        ...(facets.includes('texture') ? { swatch: given.swatch ?? null } : {}),
      }),
    ),
    says: `${facets.join(', ')} ${facets.length > 1 ? 'come' : 'comes'} from “${name}”.${colour ? ofTheSet(ticket) : ''}`,
  };
}
