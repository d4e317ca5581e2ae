import { labDistance2, labOfHex } from '../colour/oklab.ts';
import { neutralStyle, type Style } from '../mix/style.ts';
import { hashPixels } from '../image/workingCopy.ts';
import { paint } from '../paint/paint.ts';
import { sampleContent } from '../testPictures.ts';
import { avoidedColours, avoidMarks, onlyInText } from './avoid.ts';

const style: Style = {
  ...neutralStyle(),
  amounts: { ...neutralStyle().amounts, outline: 0.9, hatch: 0.8, shadow: 0.5, spot: 0.7 },
  framing: { margins: [0.1, 0.1, 0.1, 0.1], corner: 0, sheet: labOfHex('#f3eee2'), seat: null },
};

describe('avoid words', () => {
  it('turn the marks off that they name, by any of their names, and leave the rest', () => {
    const { amounts } = avoidMarks(style, ['Outlines', 'no  hatching']);
    expect([amounts.outline, amounts.hatch]).toEqual([0, 0]);
    expect([amounts.shadow, amounts.spot]).toEqual([0.5, 0.7]);
    expect(avoidMarks(style, ['margins']).framing).toBeNull();
    expect(avoidMarks(style, ['hands'])).toBe(style);
  });
  it('come to the same when they are said twice', () => {
    const once = avoidMarks(style, ['dots', 'shadows']);
    expect(avoidMarks(once, ['dots', 'shadows'])).toEqual(once);
  });
  it('keep a mark out of the painting, not only out of the settings', () => {
    const content = sampleContent(192, 4);
    const lined: Style = { ...neutralStyle(), amounts: { ...neutralStyle().amounts, outline: 1 } };
    const hash = (s: Style): string => hashPixels(paint(content, s, 1, 5));
    expect(hash(lined)).not.toBe(hash(neutralStyle()));
    expect(hash(avoidMarks(lined, ['outline']))).toBe(hash(neutralStyle()));
  });
  it('name colours that must not appear', () => {
    const violet = avoidedColours(['violet', 'Violet']);
    expect(violet.length).toBe(4);
    expect(violet.some(v => labDistance2(labOfHex(v.hex), labOfHex('#7a4cc8')) < v.radius * v.radius)).toBeTrue();
    expect(avoidedColours(['lettering'])).toEqual([]);
  });
  it('that name neither are told', () => {
    expect(onlyInText(['hands', 'violet', 'shadow', 'lettering'])).toEqual(['hands', 'lettering']);
  });
});
