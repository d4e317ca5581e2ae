import type {
  CellValue,
  Drift,
  Fingerprint,
  Finding,
  Kin,
  PaletteColour,
  PlanKind,
  Slot,
  Style,
  TextPart,
  Ticket,
} from '@zinc/core';
import { SLOT_KINDS } from '@zinc/core';
import { array, boolean, mixed, number, object, string, type InferType } from 'yup';
import { facetList, grade, hexColour, id, isoDate, maybe, percent, sha, tagsList, text, wordsList } from './fields.ts';
import type { AskView, FamilyMember } from './mends.ts';
import type { VariantOrigin } from './prepare.ts';
import type { PlanInput } from './plan.ts';
import { capabilitiesSchema } from './press.ts';

/** Shapes of the API. The OpenAPI document, the server's checks and the web application's types all come from here. */
export const ROLES = ['lead', 'designer', 'reviewer'] as const;
export type Role = (typeof ROLES)[number];

// --- people
export const signInSchema = object({
  email: text(200, 'The address').required('Write your address'),
  password: string().max(200).required('Write your password'),
});
export const firstLeadSchema = object({
  name: text(120, 'The name').required('Write your name'),
  email: text(200, 'The address').email('Write an address such as ines@example.org').required('Write your address'),
  password: string().min(10, 'The password needs at least 10 characters').max(200).required('Choose a password'),
  house: text(120, 'The name of the house').required('Name the house'),
});
export const personSchema = object({
  id: id(),
  name: string().required(),
  email: string().required(),
  role: mixed<Role>().oneOf(ROLES).required(),
});
export type Person = InferType<typeof personSchema>;
export const sessionSchema = object({
  person: personSchema.nullable().defined(),
  houseEmpty: boolean().required(),
  houseName: string().nullable().defined(),
});
export type Session = InferType<typeof sessionSchema>;

// --- house
export const brandSchema = object({
  id: id(),
  name: string().required(),
  allowedDrift: number().required(),
  avoid: array(string().required()).required(),
  colours: array(
    object({
      name: string().required(),
      role: string().required(),
      hex: string().required(),
      never: boolean().required(),
      tolerance: number().required(),
    }),
  ).required(),
});
export const pressSchema = object({
  id: id(),
  name: string().required(),
  /** Rests: it went wrong too often in a row, and nothing is asked of it for a while. Unused: out of use. */
  state: string().oneOf(['idle', 'busy', 'gone', 'rests', 'unused']).required(),
  /** Where it is; null for the press of the house itself. */
  url: string().nullable().defined(),
  /** Most images at once that this house asks of it; null: as many as it says. */
  atOnce: number().nullable().defined(),
  /** What an image costs there: what the house says, else what the press says. */
  price: number().required(),
  /** Whether that price is the house's own figure. */
  ownPrice: boolean().required(),
  shares: boolean().required(),
  /** Presses that would paint the very same pictures, and take over for it. */
  mates: array(string().required()).required(),
  fault: string().nullable().defined(),
  restsUntil: string().nullable().defined(),
  capabilities: capabilitiesSchema.nullable().defined(),
  secondsPerImage: number().nullable().defined(),
  waiting: number().required(),
});
export const formatSchema = object({
  id: id(),
  name: string().required(),
  width: number().required(),
  height: number().required(),
});
export const campaignSchema = object({ id: id(), name: string().required(), ends: string().nullable().defined() });
export const houseSchema = object({
  name: string().required(),
  brand: brandSchema.nullable().defined(),
  campaigns: array(campaignSchema).required(),
  formats: array(formatSchema).required(),
  presses: array(pressSchema).required(),
  people: array(personSchema).required(),
});
export type House = InferType<typeof houseSchema>;
export type Brand = InferType<typeof brandSchema>;
export type Press = InferType<typeof pressSchema>;
export type Format = InferType<typeof formatSchema>;
export type Campaign = InferType<typeof campaignSchema>;

// --- shelf
export const SHELF_STATES = ['in use', 'rests', 'put away'] as const;
export type ShelfState = (typeof SHELF_STATES)[number];
export const pictureSchema = object({ sha256: sha(), width: number().required(), height: number().required() });
/** Where a reference came from, when it was not brought as a file: an address it was fetched from, the proof it was, what it is a variant of. */
export type ReferenceOrigin =
  { kind: 'address'; url: string } | { kind: 'proof'; proofId: string; run: string; look: string } | VariantOrigin;
export const referenceSchema = object({
  id: id(),
  name: string().required(),
  shelf: string().required(),
  credit: string().defined(),
  licence: string().defined(),
  licenceEnds: string().nullable().defined(),
  state: mixed<ShelfState>().oneOf(SHELF_STATES).required(),
  picture: pictureSchema.required(),
  palette: mixed<PaletteColour[]>().required(),
  grade: number().nullable().defined(),
  tags: array(string().required()).required(),
  styleWords: array(string().required()).required(),
  subjectWords: string().defined(),
  /** Where it stands on its shelf: things with a smaller place come first. */
  place: number().required(),
  origin: mixed<ReferenceOrigin>().nullable().defined(),
  revision: number().required(),
  addedAt: string().required(),
  addedBy: string().required(),
});
export type Reference = InferType<typeof referenceSchema>;
export const addressSchema = object({ url: text(2000, 'The address').required('Write the address') });
export const promoteSchema = object({ proofId: id() });
export const referencePatchSchema = object({
  name: text(120, 'The name').min(1, 'The name cannot be empty'),
  shelf: text(80, 'The shelf').min(1, 'The shelf needs a name'),
  credit: text(200, 'The credit'),
  licence: text(200, 'The licence'),
  licenceEnds: isoDate().nullable(),
  state: mixed<ShelfState>().oneOf(SHELF_STATES),
  grade: grade(),
  tags: tagsList(),
  styleWords: array(text(80, 'A word').required()).max(40, 'At most 40 words'),
  subjectWords: text(300, 'The subject words'),
  place: number().typeError('A place is a number'),
}).noUnknown('Got a field this has not');
/** Pictures whose fingerprints are wanted. */
export const hashesSchema = object({ hashes: array(sha()).min(1).max(100, 'At most 100 pictures at once').required() });
export const shelfOrderSchema = object({
  names: array(text(80, 'The shelf').min(1, 'A shelf needs a name').required()).max(500).required(),
});
export const shelfNameSchema = object({
  from: text(80, 'The shelf').required('Say which shelf'),
  to: text(80, 'The shelf').required('The shelf needs a name'),
});
/** What a search by likeness starts from: a kept picture, what a look aims at, an own code, or any fingerprint; and the facets it goes by. */
export const likeSchema = object({
  sha256: string(),
  lookId: string(),
  code: string(),
  fingerprint: mixed<Fingerprint>(),
  facets: facetList().min(1, 'Compare at least one facet'),
  kind: mixed<'reference' | 'code'>().oneOf(['reference', 'code']).required(),
});
export type LikeInput = InferType<typeof likeSchema>;
/** Distances of things from what was asked about, nearest first. */
export const likeResultSchema = object({
  items: array(object({ id: id(), distance: number().required() })).required(),
});
export type LikeResult = InferType<typeof likeResultSchema>;

// --- looks
export const SOURCE_KINDS = ['reference', 'palette', 'ownCode', 'wordStyle'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];
const phraseList = () => array(text(120, 'A phrase').required()).max(20, 'At most 20 phrases').required();
/** Phrases before and after the subject, and what they keep out. */
export const phrasesSchema = object({ before: phraseList(), after: phraseList(), avoid: phraseList() });
export type Phrases = InferType<typeof phrasesSchema>;
export const lookSourceSchema = object({
  kind: mixed<SourceKind>().oneOf(SOURCE_KINDS).required(),
  /** Of an own code its text. */
  id: string().max(200).required(),
  name: string().max(120).required(),
  sha256: string().nullable().defined(),
  /** Of a palette its own colours (#rrggbb); the brand's when there are none. */
  colours: array(hexColour().required()).max(12, 'At most 12 colours').default(undefined),
  /** Of a word style its phrases as they were when it was taken in. */
  phrases: maybe(phrasesSchema),
  parts: number()
    .typeError('Parts must be a number')
    .integer('Parts are whole numbers')
    .min(0, 'Parts cannot be less than 0')
    .max(99, 'More than 99 parts cannot be told apart')
    .required('Say how many parts'),
  facets: facetList(),
  /** Whether the look takes how a reference sits on its sheet: margins, corners, the place of the thing. */
  framing: boolean(),
});
export type LookSource = InferType<typeof lookSourceSchema>;
export const lookVersionInputSchema = object({
  sources: array(lookSourceSchema)
    .min(1, 'A look needs at least one source')
    .max(12, 'A look can have at most 12 sources')
    .test(
      'some-parts',
      'Give at least one source a part',
      list => !list || list.some(s => typeof s.parts !== 'number' || s.parts > 0 || !(s.parts >= 0)),
    )
    .required(),
  strength: percent('The strength').required('Say how strong'),
  words: wordsList(),
  avoid: wordsList(),
  note: text(500, 'The note').defined(),
});
export type LookVersionInput = InferType<typeof lookVersionInputSchema>;
/** The version of a look that another was begun from. */
export interface BegunFrom {
  lookId: string;
  name: string;
  version: number;
}
export const lookInputSchema = lookVersionInputSchema.shape({
  name: text(120, 'The name').required('Name the look'),
  begunFrom: maybe(object({ lookId: id(), version: number().integer().required() })),
});
export const lookVersionSchema = lookVersionInputSchema.shape({
  version: number().required(),
  author: string().required(),
  madeAt: string().required(),
  style: mixed<Style>().required(),
  target: mixed<Fingerprint>().nullable().defined(),
  facets: facetList(),
  begunFrom: mixed<BegunFrom>().nullable().defined(),
});
export type LookVersion = InferType<typeof lookVersionSchema>;
export const lookSchema = object({
  id: id(),
  name: string().required(),
  state: string().required(),
  latest: lookVersionSchema.required(),
  versions: array(
    object({ version: number().required(), note: string().defined(), author: string().required(), madeAt: string().required() }),
  ).required(),
});
export type Look = InferType<typeof lookSchema>;

/** A proof that speaks for a range. */
export interface RangeProof {
  id: string;
  sha256: string;
  label: string;
}
export const rangeInputSchema = object({
  version: number().integer().min(1).required('Say which version'),
  /** As plans name what can be stepped: strength, bind, fidelity, or what a press declares. */
  setting: text(120, 'The setting')
    .matches(/^(strength|bind|fidelity|press:.+)$/, 'A range is of strength, bind, fidelity or a setting of a press')
    .default('strength'),
  from: percent('The lower value').required('Say from which value'),
  to: percent('The upper value')
    .required('Say to which value')
    .test('order', 'The upper value must be at least the lower one', (v, c) => v >= (c.parent as { from: number }).from),
  goodFor: text(200, 'What it is good for').required('Say what it is good for, such as round subjects'),
  note: text(500, 'The note').defined(),
  proofIds: array(id()).max(12, 'At most 12 proofs').required(),
});
export const rangeSchema = object({
  id: id(),
  lookId: id(),
  version: number().required(),
  setting: string().required(),
  from: number().required(),
  to: number().required(),
  goodFor: string().defined(),
  note: string().defined(),
  proofs: mixed<RangeProof[]>().required(),
  author: string().required(),
  at: string().required(),
});
export type LookRange = InferType<typeof rangeSchema>;

// --- word styles
export const wordStyleInputSchema = phrasesSchema.shape({
  name: text(120, 'The name').required('Name the word style'),
  purpose: text(300, 'The purpose').defined(),
  byDefault: boolean().required(),
  grade: grade().defined(),
});
export type WordStyleInput = InferType<typeof wordStyleInputSchema>;
export const wordStyleSchema = wordStyleInputSchema.shape({
  id: id(),
  revision: number().required(),
  addedBy: string().required(),
});
export type WordStyle = InferType<typeof wordStyleSchema>;
export const wordStylesImportedSchema = object({
  added: number().required(),
  left: number().required(),
  refused: mixed<{ line: number; what: string; reason: string }[]>().required(),
});
export type WordStylesImported = InferType<typeof wordStylesImportedSchema>;

// --- wording
export const slotSchema = object({
  name: string()
    .matches(/^[a-z][a-zA-Z0-9]{0,30}$/, 'A slot name starts with a small letter and has letters and digits only')
    .required('Name the slot'),
  kind: mixed<Slot['kind']>().oneOf(SLOT_KINDS).required(),
  choices: array(text(120, 'A choice').min(1).required()),
  default: text(200, 'The default'),
  help: text(200, 'The help'),
});
export const templateInputSchema = object({
  name: text(120, 'The name').required('Name the template'),
  text: text(2000, 'The template').required('The template is empty. Write a sentence with {{subject}} in it.'),
  avoid: wordsList(),
  slots: array(slotSchema).max(20).required(),
});
export type TemplateInput = InferType<typeof templateInputSchema>;
export const templateSchema = templateInputSchema.shape({
  id: id(),
  version: number().required(),
  author: string().required(),
  madeAt: string().required(),
});
export type Template = InferType<typeof templateSchema>;
export const subjectInputSchema = object({
  label: text(120, 'The label').required('Give the subject a label'),
  wording: text(500, 'The wording').required('Give the subject a wording'),
  avoid: wordsList(),
  /** Its own colours, the first of which it mostly has. */
  colours: array(hexColour().required()).max(6, 'At most 6 own colours'),
  tags: tagsList(),
  /** The meaning that was chosen of a word that has several; empty when none was. */
  meaning: text(300, 'The meaning'),
});
export const subjectSchema = subjectInputSchema.shape({
  id: id(),
  picture: pictureSchema.nullable().defined(),
  revision: number().required(),
});
export type Subject = InferType<typeof subjectSchema>;
/** One meaning of a word, as WordNet tells it. */
export interface WordSense {
  /** A word or two that tell it from the others, to be written into the wording. */
  hint: string;
  gloss: string;
}
/** A word of a subject with several meanings. */
export const unclearWordSchema = object({
  subjectId: id(),
  word: string().required(),
  senses: mixed<WordSense[]>().required(),
});
export type UnclearWord = InferType<typeof unclearWordSchema>;
/** What came of a file of subjects: rows that could not be taken with their line and why. */
export const subjectsImportedSchema = object({
  added: number().required(),
  refused: mixed<{ line: number; what: string; reason: string }[]>().required(),
});
export type SubjectsImported = InferType<typeof subjectsImportedSchema>;
export const subjectListSchema = object({
  id: id(),
  name: text(120, 'The name').required('Name the list'),
  subjectIds: array(id()).required(),
});
export type SubjectList = InferType<typeof subjectListSchema>;
export const subjectListInputSchema = object({
  name: text(120, 'The name').required('Name the list'),
  subjectIds: array(id()).min(1, 'A list needs at least one subject').max(500).required(),
});
export const subjectPasteSchema = object({
  text: string().max(100_000, 'The list is longer than 100 000 characters').required('Paste at least one line'),
});

// --- budgets
export const budgetSchema = object({
  about: id(),
  kind: mixed<'campaign' | 'person'>().oneOf(['campaign', 'person']).required(),
  name: string().defined(),
  images: number().required(),
  /** Images made, and images that are ordered. */
  used: number().required(),
});
export type Budget = InferType<typeof budgetSchema>;
export const budgetInputSchema = object({
  images: number()
    .typeError('A budget is a whole number of images')
    .integer('A budget is a whole number of images')
    .min(0, 'A budget cannot be less than 0 images')
    .max(1_000_000, 'A budget of more than a million images is none')
    .nullable()
    .defined(),
});

// --- runs
export interface PlannedCell {
  key: string;
  row: number;
  column: number;
  subjectId: string;
  lookId: string;
  formatId: string;
  /** What is stepped, at its value here. */
  values: CellValue[];
  struckOut: boolean;
  text: string;
  parts: TextPart[];
  avoid: string[];
  /** Seeds of its takes. */
  seeds: number[];
}
export const planPreviewSchema = object({
  cells: mixed<PlannedCell[]>().required(),
  images: number().required(),
  seconds: number().nullable().defined(),
  cost: number().required(),
  findings: mixed<Finding[]>().required(),
});
export type PlanPreview = InferType<typeof planPreviewSchema>;
export const BATCH_STATES = ['waiting', 'running', 'paused', 'done', 'stopped'] as const;
export type BatchState = (typeof BATCH_STATES)[number];
export const TAKE_STATES = ['waiting', 'painting', 'made', 'failed', 'cancelled'] as const;
export type TakeState = (typeof TAKE_STATES)[number];
export const runSchema = object({
  id: id(),
  name: string().required(),
  state: mixed<BatchState>().oneOf(BATCH_STATES).required(),
  images: number().required(),
  made: number().required(),
  failed: number().required(),
  kept: number().required(),
  decided: number().required(),
  kind: mixed<PlanKind>().required(),
  batches: number().required(),
  startedAt: string().required(),
  startedBy: string().required(),
  cover: array(string().required()).required(),
  waitingFor: string().nullable().defined(),
});
export type Run = InferType<typeof runSchema>;
export const VERDICTS = ['keep', 'keepOnceMended', 'hold', 'drop'] as const;
export type Verdict = (typeof VERDICTS)[number];
export const REASONS = [
  'off palette',
  'light',
  'line',
  'texture',
  'wrong subject',
  'stray part',
  'lettering',
  'crop',
  'background',
  'other',
] as const;
export const decisionSchema = object({
  id: id(),
  proofId: id(),
  verdict: mixed<Verdict>().oneOf(VERDICTS).nullable().defined(),
  grade: number().nullable().defined(),
  reasons: array(string().required()).required(),
  note: string().defined(),
  person: string().required(),
  at: string().required(),
});
export type Decision = InferType<typeof decisionSchema>;
export const commentSchema = object({
  id: id(),
  proofId: id(),
  answers: string().nullable().defined(),
  x: number().nullable().defined(),
  y: number().nullable().defined(),
  words: string().defined(),
  person: string().required(),
  personId: id(),
  at: string().required(),
  closedBy: string().nullable().defined(),
  closedAt: string().nullable().defined(),
});
export type Comment = InferType<typeof commentSchema>;
const place = () => number().min(0, 'The place lies outside the picture').max(1, 'The place lies outside the picture').nullable();
export const commentInputSchema = object({
  id: id(),
  proofId: id(),
  answers: id().notRequired().nullable().default(null),
  x: place().default(null),
  y: place().default(null),
  words: text(4000, 'A comment').min(1, 'Write what you want to say').required('Write what you want to say'),
});
export type CommentInput = InferType<typeof commentInputSchema>;
export const commentCloseSchema = object({ closed: boolean().required() });
export const reopenSchema = object({
  reason: text(500, 'The reason').min(4, 'Say why in a few words').required('Say why it is opened again'),
});
export const decisionInputSchema = object({
  id: id(),
  proofId: id(),
  verdict: mixed<Verdict>().oneOf(VERDICTS, 'The verdict must be keep, keepOnceMended, hold or drop').nullable().defined(),
  grade: grade().defined(),
  reasons: array(string().oneOf(REASONS).required()).max(REASONS.length).required(),
  note: text(1000, 'The note').defined(),
});
export type DecisionInput = InferType<typeof decisionInputSchema>;
/** What one person says of a proof now. */
export interface Voice {
  personId: string;
  person: string;
  role: Role;
  verdict: Verdict | null;
  grade: number | null;
}
export interface ProofView {
  id: string;
  pictureSha: string;
  width: number;
  height: number;
  drift: Drift | null;
  /** How much of its content it keeps, 0–1; null when there is nothing to compare it with. */
  likeness: number | null;
  decision: Decision | null;
  /** Everyone's standing decision, the newest first. */
  voices: Voice[];
  /** Comments that are not closed. */
  openComments: number;
  seed: number;
  ticketHash: string;
}
export interface TakeView {
  id: string;
  take: number;
  seed: number;
  state: TakeState;
  problem: string | null;
  attempts: number;
  /** The proof that it is made from, and how. */
  from: { proofId: string; how: Kin } | null;
  proof: ProofView | null;
}
export interface CellView {
  key: string;
  row: number;
  column: number;
  subject: { id: string; label: string };
  look: { id: string; name: string; version: number };
  format: { id: string; name: string; width: number; height: number };
  values: CellValue[];
  batch: number;
  text: string;
  takes: TakeView[];
}
/** One pass of review. */
export interface RoundView {
  number: number;
  openedBy: string;
  openedAt: string;
  reason: string;
  signedBy: string | null;
  signedAt: string | null;
  /** What stood when it was signed off, by proof; null while it is open. */
  stood: Record<string, Verdict | null> | null;
}
/** One batch of a run, as it was frozen. */
export interface BatchView {
  number: number;
  state: BatchState;
  plan: PlanInput;
  /** How it differs from the batch before, in words. */
  differs: string[];
  bound: 'barycentre' | 'anchor' | null;
  frozenAt: string;
}
export const runDetailSchema = object({
  run: runSchema.required(),
  allowedDrift: number().required(),
  facets: facetList(),
  format: object({ name: string().required(), width: number().required(), height: number().required() }).required(),
  cells: mixed<CellView[]>().required(),
  leftOut: array(string().required()).required(),
  batches: mixed<BatchView[]>().required(),
  /** Passes of review, oldest first; none before the first decision. */
  rounds: mixed<RoundView[]>().required(),
});
/** How loosely the proofs of a run hang together by facet, look by look; 0 is one and the same look. */
export const cohesionSchema = object({
  items: array(
    object({
      lookId: string().required(),
      lookName: string().required(),
      proofs: number().required(),
      cohesion: mixed<Drift>().required(),
    }),
  ).required(),
});
export type Cohesion = InferType<typeof cohesionSchema>;
export const moreTakesSchema = object({
  takes: number()
    .typeError('Takes must be a number')
    .integer('Takes are whole numbers')
    .min(1, 'Order at least 1 more take')
    .max(12, 'At most 12 more takes a cell')
    .required('Say how many more'),
});
export type RunDetail = InferType<typeof runDetailSchema>;
export const proofSchema = object({
  id: id(),
  runId: id(),
  runName: string().required(),
  cellKey: string().required(),
  take: number().required(),
  subjectLabel: string().required(),
  pictureSha: sha(),
  pixelHash: sha(),
  width: number().required(),
  height: number().required(),
  ticket: mixed<Ticket>().required(),
  ticketHash: sha(),
  drift: mixed<Drift>().nullable().defined(),
  likeness: number().nullable().defined(),
  targetPalette: mixed<PaletteColour[]>().required(),
  sources: array(lookSourceSchema).required(),
  decisions: array(decisionSchema).required(),
  madeAt: string().required(),
  original: pictureSchema.nullable().defined(),
  comments: array(commentSchema.required()).required(),
  /** Everything made from one first proof, this one among them. */
  family: mixed<FamilyMember[]>().required(),
  /** How many finished pictures lie under this one, each worked over. */
  depth: number().required(),
  /** What was asked of the first proof of its thread and what came of it, oldest first. */
  asks: mixed<AskView[]>().required(),
  /** The campaign it belongs to, and whether it leads it. */
  campaign: mixed<{ id: string; name: string; isHero: boolean }>().nullable().defined(),
});
export type Proof = InferType<typeof proofSchema>;
export const remakeSchema = object({
  same: boolean().required(),
  pixelHash: sha(),
  expected: sha(),
  seconds: number().required(),
});
export type Remake = InferType<typeof remakeSchema>;
export const exportInputSchema = object({
  verdicts: array(mixed<Verdict>().oneOf(VERDICTS).required()).min(1, 'Say which verdicts to export').required(),
  naming: text(120, 'The naming rule').required('Write a naming rule'),
});
export const messageSchema = object({ message: string().required() });
