import { guardCell, unguardCell } from '@zinc/contract';
import fc from 'fast-check';
import { stringify } from 'csv-stringify/sync';
import { ProblemError } from '../../http/problemError.ts';
import { decodeText, gradeFrom, guessColumns, guessScale, MOST_ROWS, readSheet } from './spreadsheet.ts';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const cells = async (text: string): Promise<string[][]> => (await readSheet(bytes(text))).rows.map(r => r.cells);
const fault = async (job: Promise<unknown>): Promise<string> =>
  job.then(
    () => 'nothing',
    (error: unknown) => (error instanceof ProblemError ? error.message : 'another error'),
  );

describe('a spreadsheet', () => {
  it('is read with commas, semicolons or tabs, and quotes', async () => {
    const wanted = [['a, b', '7']];
    expect(await cells('code,grade\n"a, b",7\n')).toEqual(wanted);
    expect(await cells('code;grade\r\n"a, b";7\r\n')).toEqual(wanted);
    expect(await cells('code\tgrade\na, b\t7')).toEqual(wanted);
  });
  it('is read in any usual encoding', async () => {
    const text = 'code,note\nx,Größe – für Körbe\n';
    const utf16 = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
    const western = Buffer.from('code,note\nx,Gr\xf6\xdfe f\xfcr K\xf6rbe\n', 'latin1');
    expect((await readSheet(utf16)).rows[0].cells[1]).toBe('Größe – für Körbe');
    expect((await readSheet(bytes(`\ufeff${text}`))).header).toEqual(['code', 'note']);
    const old = await readSheet(western);
    expect([old.encoding, old.rows[0].cells[1]]).toEqual(['windows-1252', 'Größe für Körbe']);
    expect(decodeText(bytes('plain')).encoding).toBe('utf-8');
  });
  it('keeps the line of each row, over notes of several lines', async () => {
    const { rows } = await readSheet(bytes('code,note\na,"two\nlines"\n\nb,x\n'));
    expect(rows.map(r => r.cells[0])).toEqual(['a', 'b']);
    expect(rows[1].line).toBe(5);
  });
  it('takes stray quotes as they stand and says where one is never closed', async () => {
    expect(await cells('code,note\na,5" paper\n')).toEqual([['a', '5" paper']]);
    expect(await fault(readSheet(bytes('code,note\na,b\nc,"open\nd,e\n')))).toMatch(/quotation mark.*never closed/);
  });
  it('is refused when it is empty, no text, or too long', async () => {
    expect(await fault(readSheet(bytes('code,grade\n')))).toMatch(/no rows/);
    expect(await fault(readSheet(new Uint8Array([80, 75, 3, 4, 0, 0, 9])))).toMatch(/not a text file/);
    expect(await fault(readSheet(bytes(`code\n${'a\n'.repeat(MOST_ROWS + 1)}`)))).toMatch(/more than 50000 rows/);
    expect((await readSheet(bytes(`code\n${'a\n'.repeat(MOST_ROWS)}`))).rows.length).toBe(MOST_ROWS);
  });
  it('names its columns in many ways', () => {
    expect(guessColumns(['Rating', 'Style code', 'Good for', 'whatever'])).toEqual({ grade: 0, text: 1, note: 2 });
  });
});

describe('cells', () => {
  it('come back as they went out, formulas too, and none goes out as a formula', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme' }), { minLength: 1 }), row => {
        for (const cell of row) {
          expect(guardCell(cell)).not.toMatch(/^[=+\-@\t\r]/);
          expect(unguardCell(guardCell(cell))).toBe(cell);
        }
        return stringify([row.map(guardCell)]).length > 0;
      }),
    );
    expect(guardCell('=1+1')).toBe("'=1+1");
    expect(unguardCell(guardCell("'quoted"))).toBe("'quoted");
  });
});

describe('grades from other scales', () => {
  it('reach from 0 to 9', () => {
    expect([gradeFrom('1', '1–5'), gradeFrom('3', '1–5'), gradeFrom('5', '1–5')]).toEqual([0, 5, 9]);
    expect([gradeFrom('0', '0–100'), gradeFrom('50,5', '0–100'), gradeFrom('100', '0–100')]).toEqual([0, 5, 9]);
    expect([gradeFrom('F', 'A–F'), gradeFrom('c', 'A–F'), gradeFrom('A+', 'A–F')]).toEqual([0, 5, 9]);
    expect(gradeFrom('', '0–9')).toBeNull();
  });
  it('are refused when they are not on the scale', () => {
    expect(() => gradeFrom('6', '1–5')).toThrowError(/“6” is not a grade from 1 to 5/);
    expect(() => gradeFrom('much', '0–9')).toThrowError(RangeError);
    expect(() => gradeFrom('G', 'A–F')).toThrowError(RangeError);
  });
  it('show their scale', () => {
    expect([guessScale(['3', '', '9']), guessScale(['10', '3']), guessScale(['88']), guessScale(['B', 'A-'])]).toEqual([
      '0–9',
      '0–10',
      '0–100',
      'A–F',
    ]);
  });
});
