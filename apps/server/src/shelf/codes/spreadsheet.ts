import { Readable } from 'node:stream';
import { CODE_COLUMNS, unguardCell, type CodeColumn, type GradeScale } from '@zinc/contract';
import { CsvError, parse } from 'csv-parse';
import { ProblemError } from '../../http/problemError.ts';

export const MOST_ROWS = 50_000;

/** A spreadsheet as it was read: every cell as text, each row with the line of the file that it ends on. */
export interface Sheet {
  encoding: string;
  header: string[];
  rows: { line: number; cells: string[] }[];
}

const BYTE_ORDER: readonly [number[], string][] = [
  [[0xef, 0xbb, 0xbf], 'utf-8'],
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
];

/** The text of a file: by its byte order mark, else UTF-8 when it is that, else the Western encoding of older spreadsheets. */
export function decodeText(bytes: Uint8Array): { encoding: string; text: string } {
  const marked = BYTE_ORDER.find(([mark]) => mark.every((v, i) => bytes[i] === v));
  if (marked) return { encoding: marked[1], text: new TextDecoder(marked[1]).decode(bytes) };
  try {
    return { encoding: 'utf-8', text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) };
  } catch {
    return { encoding: 'windows-1252', text: new TextDecoder('windows-1252').decode(bytes) };
  }
}

/** The mark that parts columns: the one that stands most often in the first line. */
function delimiterOf(text: string): string {
  const first = text.slice(0, Math.max(1, text.search(/[\r\n]|$/)));
  const count = (mark: string): number => first.split(mark).length;
  return [',', ';', '\t'].reduce((p, c) => (count(c) > count(p) ? c : p));
}

/**
 * Reads comma-, semicolon- or tab-separated values (RFC 4180, with stray quotes taken as they stand). Throws `badInput` when a quote is never
 * closed, when there is nothing in it, or when there are too many rows.
 */
export async function readSheet(bytes: Uint8Array): Promise<Sheet> {
  const { encoding, text } = decodeText(bytes);
  if (text.includes('\0'))
    throw new ProblemError('badInput', 'This is not a text file. Save the spreadsheet as CSV.', { field: 'file' });
  const parser = Readable.from([text]).pipe(
    parse({
      bom: true,
      delimiter: delimiterOf(text),
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
      info: true,
    }),
  );
  const rows: Sheet['rows'] = [];
  try {
    for await (const { record, info } of parser as AsyncIterable<{ record: string[]; info: { lines: number } }>) {
      if (rows.length > MOST_ROWS)
        throw new ProblemError('tooLarge', `The file has more than ${MOST_ROWS} rows. Split it and bring in the parts.`, {
          field: 'file',
        });
      rows.push({ line: info.lines, cells: record.map(cell => unguardCell(cell.trim())) });
    }
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    const line = typeof error.lines === 'number' ? ` near line ${error.lines}` : '';
    throw new ProblemError(
      'badInput',
      `A quotation mark${line} is opened and never closed. Mend it and bring the file in again.`,
      {
        field: 'file',
      },
    );
  }
  const [first, ...rest] = rows;
  if (!first || rest.length === 0)
    throw new ProblemError('badInput', 'The file holds no rows under its first line, which names the columns.', {
      field: 'file',
    });
  return { encoding, header: first.cells, rows: rest };
}

const NAMES: Record<CodeColumn, RegExp> = {
  text: /^(style )?(code|text|string)$/,
  press: /^(press|generator|engine)$/,
  name: /^(name|title|label)$/,
  grade: /^(grade|score|rating|stars|points|mark)$/,
  note: /^(notes?|good for|use|remarks?|comments?)$/,
  tags: /^(tags?|keywords?|topics?)$/,
  shelf: /^(shelf|group|folder|category|set)$/,
};

/** Which column probably means what, by its heading. */
export function guessColumns(header: readonly string[]): Partial<Record<CodeColumn, number>> {
  const out: Partial<Record<CodeColumn, number>> = {};
  for (const column of CODE_COLUMNS) {
    const at = header.findIndex(h => NAMES[column].test(h.trim().toLowerCase()));
    if (at >= 0) out[column] = at;
  }
  return out;
}

const LETTERS = 'FEDCBA';

/** A grade on another scale as 0–9; null when there is none. Throws RangeError when it is not on that scale. */
export function gradeFrom(cell: string, scale: GradeScale): number | null {
  if (cell === '') return null;
  if (scale === 'A–F') {
    const letter = /^([A-F])([+-]?)$/i.exec(cell);
    if (!letter) throw new RangeError(`“${cell}” is not a grade from A to F`);
    const whole = (LETTERS.indexOf(letter[1].toUpperCase()) / 5) * 9;
    return Math.min(9, Math.max(0, Math.round(whole + (letter[2] === '+' ? 0.6 : letter[2] === '-' ? -0.6 : 0))));
  }
  const [low, high] = scale.split('–').map(Number);
  const value = Number(cell.replace(',', '.'));
  if (!Number.isFinite(value) || value < low || value > high)
    throw new RangeError(`“${cell}” is not a grade from ${low} to ${high}`);
  return Math.round(((value - low) / (high - low)) * 9);
}

/** The scale that all grades of a column fit on, the narrowest first. */
export function guessScale(cells: readonly string[]): GradeScale {
  const given = cells.filter(Boolean);
  const fits = (scale: GradeScale): boolean =>
    given.every(cell => {
      try {
        gradeFrom(cell, scale);
        return true;
      } catch {
        return false;
      }
    });
  return (['0–9', '0–10', '0–100', 'A–F'] as const).find(fits) ?? '0–9';
}
