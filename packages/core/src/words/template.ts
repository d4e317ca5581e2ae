import Mustache from 'mustache';

/** A place in a template that is filled at use. The slot `subject` is always there and takes the subject's wording. */
export interface Slot {
  name: string;
  kind: (typeof SLOT_KINDS)[number];
  choices?: string[];
  default?: string;
  /** What belongs there, for those who fill it. */
  help?: string;
}
export const SLOT_KINDS = ['subject', 'text', 'choice', 'colour', 'number', 'lettering'] as const;

/** What is wrong with a value of a slot, or null. An empty value leaves the slot's place empty, which is right for any kind. */
export function slotFault(slot: Slot, value: string): string | null {
  const v = value.trim();
  if (v === '') return null;
  if (slot.kind === 'number' && !/^-?\d+([.,]\d+)?$/.test(v)) return `${slot.name} is “${v}”; wanted a number.`;
  if (slot.kind === 'colour' && !/^(#[0-9a-f]{6}|[a-z][a-z -]*)$/i.test(v))
    return `${slot.name} is “${v}”; wanted a colour word or six hexadecimal digits after #, such as #8e2a4b.`;
  if (slot.kind === 'choice' && slot.choices?.length && !slot.choices.includes(v))
    return `${slot.name} is “${v}”; wanted one of ${slot.choices.join(', ')}.`;
  return null;
}

/** Something wrong with a template, told at the field where it stands. */
export interface TemplateFault {
  code: 'empty' | 'unclosed' | 'unknownSlot' | 'unusedSlot' | 'noSubject' | 'duplicateSlot' | 'notAllowed';
  slot?: string;
  message: string;
}

/** Slot names in order of their first appearance. Throws SyntaxError when a tag is not closed or is not a plain slot. */
export function slotsOf(text: string): string[] {
  let spans: unknown[];
  try {
    spans = Mustache.parse(text) as unknown[];
  } catch (error) {
    throw new SyntaxError(`The template cannot be read: ${(error as Error).message}. Write slots as {{subject}}.`);
  }
  const names: string[] = [];
  for (const span of spans as [string, string][]) {
    if (span[0] === 'text') continue;
    if (span[0] !== 'name' && span[0] !== '&')
      throw new SyntaxError(`Got the tag "${span[1]}"; only plain slots such as {{subject}} can stand in a template.`);
    if (!names.includes(span[1])) names.push(span[1]);
  }
  return names;
}

/** Every fault of a template against its declared slots; empty when it can be used. */
export function checkTemplate(text: string, slots: readonly Slot[]): TemplateFault[] {
  if (text.trim() === '') return [{ code: 'empty', message: 'The template is empty. Write a sentence with {{subject}} in it.' }];
  let used: string[];
  try {
    used = slotsOf(text);
  } catch (error) {
    return [{ code: 'unclosed', message: (error as Error).message }];
  }
  const faults: TemplateFault[] = [];
  const declared = new Set<string>(['subject']);
  for (const slot of slots) {
    if (slot.name !== 'subject' && declared.has(slot.name))
      faults.push({ code: 'duplicateSlot', slot: slot.name, message: `The slot "${slot.name}" is declared twice.` });
    declared.add(slot.name);
    if (!used.includes(slot.name))
      faults.push({
        code: 'unusedSlot',
        slot: slot.name,
        message: `The slot "${slot.name}" is declared but does not stand in the text.`,
      });
  }
  for (const name of used)
    if (!declared.has(name))
      faults.push({
        code: 'unknownSlot',
        slot: name,
        message: `The text uses {{${name}}}, which is not a slot of this template. Add the slot or mend its name.`,
      });
  if (!used.includes('subject'))
    faults.push({
      code: 'noSubject',
      slot: 'subject',
      message: 'The text has no {{subject}}, so every image would be the same.',
    });
  return faults;
}

/** A run of words and where they came from. */
export interface TextPart {
  from: 'template' | 'look' | 'subject' | 'override' | 'anchor' | 'brand' | 'ask';
  words: string;
}

/** Template words and fills in order, so that a screen can mark what came from where. Missing fills take the slot's default, else "". */
export function fillTemplate(text: string, slots: readonly Slot[], fills: Readonly<Record<string, string>>): TextPart[] {
  const parts: TextPart[] = [];
  const spans = Mustache.parse(text) as unknown as [string, string][];
  for (const [kind, value] of spans) {
    if (kind === 'text') parts.push({ from: 'template', words: value });
    else {
      const words = fills[value] ?? slots.find(s => s.name === value)?.default ?? '';
      parts.push({ from: value === 'subject' ? 'subject' : fills[value] === undefined ? 'template' : 'override', words });
    }
  }
  return parts.filter(p => p.words !== '');
}

/** Words of the template, of notes and of an anchor: what is said of the subject, beside what it is. */
export function wordsAround(parts: readonly TextPart[]): string {
  return parts
    .filter(p => p.from === 'template' || p.from === 'override' || p.from === 'anchor')
    .map(p => p.words)
    .join(' ');
}

/** What was asked of the drawing after it had been made once; it goes before everything else. */
export function wordsAsked(parts: readonly TextPart[]): string {
  return parts
    .filter(p => p.from === 'ask')
    .map(p => p.words)
    .join(' ');
}

/** The final text: parts joined, spaces and stray commas tidied. */
export function joinParts(parts: readonly TextPart[]): string {
  return parts
    .map(p => p.words)
    .join('')
    .replace(/\s+/g, ' ')
    .replace(/\s+([,.;])/g, '$1')
    .replace(/(,\s*)+,/g, ',')
    .trim();
}
