import type { Style } from '../mix/style.ts';
import type { TextPart } from '../words/template.ts';

export const TICKET_VERSION = 1;

/** The complete recipe of one image. Percentages are whole numbers; see docs/words.md for the terms. */
export interface Ticket {
  ticket: number;
  press: { id: string; name: string; version: string; model: string; painterVersion?: number };
  text: { parts: TextPart[]; final: string; avoid: string[]; lettering: string[] };
  subject: { id: string; label: string; wording: string; identity: number };
  contents: { sha256: string; strength: number; read: 'areas' | 'outline' | 'tone' }[];
  look: { id: string; version: number; name: string; mixer: number; measure: number; style: Style };
  format: { name: string; width: number; height: number; fit: 'crop' | 'extend' };
  never: { hex: string; radius: number }[];
  seed: number;
  take: number;
  settings: { strength: number } & Record<string, number | string | boolean>;
  parents: { proof: string; how: string }[];
}
