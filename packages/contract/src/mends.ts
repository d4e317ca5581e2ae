import type { Applied, AskChange, Echo, Kin, Leak, Lettering, Ticket } from '@zinc/core';
import { array, boolean, mixed, number, object, string, type InferType } from 'yup';
import { facetList, id, percent, sha, text } from './fields.ts';
import { MOST_STROKES, points, strokeSize } from './prepare.ts';

// A proof made from another: offshoots, retouches, asks, and matching to the set.

export const offshootsInputSchema = object({
  distance: percent('The distance').min(1, 'An offshoot lies at least 1 away').required('Say how far'),
  count: number()
    .typeError('Say how many offshoots')
    .integer('Offshoots are whole numbers')
    .min(1, 'Order at least 1 offshoot')
    .max(8, 'At most 8 offshoots at once')
    .required('Say how many'),
});
export const retouchInputSchema = object({
  how: mixed<'remove' | 'again'>().oneOf(['remove', 'again'], 'Say whether to remove or to paint again').required(),
  /** Strokes of the brush; those that stay give back what an earlier one took in. */
  strokes: array(object({ points: points(), size: strokeSize(), stays: boolean(), filled: boolean() }).required())
    .min(1, 'Brush over what is to be changed')
    .max(MOST_STROKES, `At most ${MOST_STROKES} strokes`)
    .required('Brush over what is to be changed'),
  note: text(200, 'The note').default(''),
});
export type RetouchInput = InferType<typeof retouchInputSchema>;
export const askInputSchema = object({
  words: text(500, 'What you ask').default(''),
  /** A picture that sides of the style are to come from. */
  picture: object({
    sha256: sha(),
    name: text(120, 'The name').required(),
    facets: facetList().min(1, 'Say what to take from it'),
  })
    .nullable()
    .default(null),
  /** Asks of the thread that go on being heeded. */
  keep: array(id()).max(40).default([]),
  /** Start from this proof as it is, and not from the first of the thread. */
  onTop: boolean().default(false),
});
export type AskInput = InferType<typeof askInputSchema>;
export const askReadingSchema = object({
  says: mixed<Pick<Applied, 'done' | 'says'>[]>().required(),
  left: array(string().required()).required(),
});
export type AskAnswer = InferType<typeof askReadingSchema>;
/** One wish in a thread, and the try that came of it. */
export interface AskView {
  id: string;
  /** The proof it was said of. */
  proofId: string;
  words: string;
  changes: AskChange[];
  left: string[];
  person: string;
  at: string;
  take: number;
  state: string;
  /** The proof that came of it, once made. */
  madeId: string | null;
  pictureSha: string | null;
}
export const matchInputSchema = object({ amount: percent('How strongly').min(1, 'At least 1 %').required('Say how strongly') });

/** A proof among its kin, or one that is still being made. */
export interface FamilyMember {
  proofId: string | null;
  parentId: string | null;
  how: Kin | null;
  take: number;
  state: string;
  pictureSha: string | null;
  /** How far an offshoot lies from its parent. */
  distance: number | null;
}

/** What a picture shows that nobody wanted. */
export const findingsSchema = object({
  leaks: mixed<(Leak & { source: string })[]>().required(),
  echoes: mixed<(Echo & { source: string; sha256: string })[]>().required(),
  /** Lines of letters where none were wanted. */
  lettering: mixed<Lettering[]>().required(),
});
export type ProofFindings = InferType<typeof findingsSchema>;

/** What a dropped picture turned out to be. */
export const recipeSchema = object({
  proofId: string().nullable().defined(),
  /** The ticket found in the file, when this house did not make it. */
  ticket: mixed<Ticket>().nullable().defined(),
  says: string().required(),
});
export type Recipe = InferType<typeof recipeSchema>;
