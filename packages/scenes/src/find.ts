import { labOfHex } from '@zinc/core';
import { MOST_COUNT, type Wishes } from './draw.ts';
import type { Light, Season, Setting } from './setting.ts';
import { SUBJECTS } from './subjects/index.ts';
import type { DrawnSubject, PartName } from './subjects/types.ts';

/** What the drawer makes of a wording. */
export interface Found {
  subject: DrawnSubject | null;
  /** The nearest thing that is drawn instead, in words for the ticket, when the wording's own thing is not on the list. */
  drawnAs: string | null;
  wishes: Wishes;
  /** Words that are not drawn. */
  ignored: string[];
}

type Phrase<T> = readonly [words: string, value: T];
const longestFirst = <T>(list: Phrase<T>[]): Phrase<T>[] => list.sort((p, q) => q[0].length - p[0].length);

const PHRASES = longestFirst(
  SUBJECTS.flatMap(subject => subject.words.map((w): Phrase<DrawnSubject> => [w.toLowerCase(), subject])),
);

/** Things that are not on the list and what stands in for them: a kind of the same build. What nothing stands for is refused. */
const NEAR: Phrase<string>[] = longestFirst(
  Object.entries({
    beetroot: ['turnip', 'turnips', 'swede', 'celeriac', 'root vegetable', 'root vegetables', 'rutabaga'],
    carrot: ['parsnip', 'parsnips', 'salsify', 'horseradish'],
    radish: ['winter radish', 'daikon'],
    leek: ['spring onion', 'spring onions', 'scallion', 'scallions'],
    'garlic bulb': ['onion', 'onions', 'shallot', 'shallots', 'bulb', 'bulbs'],
    pumpkin: ['gourd', 'gourds', 'marrow', 'winter squash'],
    kale: ['cabbage', 'cabbages', 'chard', 'lettuce', 'lettuces', 'spinach'],
    'broad bean pod': ['runner bean', 'runner beans', 'pea pod', 'pea pods', 'pod', 'pods'],
    'pea shoot': ['vetch', 'bean plant'],
    artichoke: ['cardoon', 'thistle', 'thistles'],
    sunflower: ['daisy', 'daisies', 'marigold', 'marigolds', 'zinnia', 'flower', 'flowers'],
    honeybee: ['bumblebee', 'bumblebees', 'wasp', 'wasps', 'hoverfly', 'insect', 'insects'],
    wren: ['robin', 'robins', 'sparrow', 'sparrows', 'blackbird', 'bird', 'birds', 'songbird'],
    'hand trowel': ['hand fork', 'dibber'],
    greenhouse: ['conservatory', 'orangery', 'hothouse', 'potting shed'],
    'rain barrel': ['cask', 'keg', 'tub'],
    wheelbarrow: ['handcart', 'cart'],
  }).flatMap(([name, words]) => words.map((w): Phrase<string> => [w, name])),
);

const COUNTS: Phrase<number>[] = [
  ['a single', 1],
  ['a pair of', 2],
  ['one', 1],
  ['two', 2],
  ['three', 3],
  ['four', 4],
  ['five', 5],
  ['six', 6],
  ['seven', 7],
  ['eight', 8],
  ['nine', 9],
];

const COLOURS: Phrase<string>[] = longestFirst([
  ['dark red', '#7d1a2c'],
  ['pale blue', '#a9c3d6'],
  ['dark green', '#2c5238'],
  ['red', '#c2263a'],
  ['crimson', '#a3163a'],
  ['pink', '#e08aa0'],
  ['orange', '#e27a2a'],
  ['yellow', '#ebc032'],
  ['golden', '#d9a531'],
  ['green', '#5a8f45'],
  ['blue', '#3f6ea6'],
  ['navy', '#2a3a60'],
  ['teal', '#2f7d7a'],
  ['purple', '#6f3a80'],
  ['lilac', '#b39ac9'],
  ['brown', '#7d5636'],
  ['black', '#2a2a2c'],
  ['white', '#f0ede4'],
  ['grey', '#8d9190'],
  ['cream', '#efe4c6'],
]);

const SETTING_WORDS: Phrase<Setting>[] = longestFirst([
  ['on a plain ground', 'plain ground'],
  ['plain ground', 'plain ground'],
  ['on white', 'plain ground'],
  ['on a wooden table', 'table'],
  ['on a kitchen table', 'table'],
  ['on a table', 'table'],
  ['on the table', 'table'],
  ['in a garden bed', 'garden bed'],
  ['in the garden', 'garden bed'],
  ['in a garden', 'garden bed'],
  ['in a vegetable bed', 'garden bed'],
  ['in the soil', 'garden bed'],
  ['in a field', 'garden bed'],
  ['by a window', 'window'],
  ['at a window', 'window'],
  ['on a window sill', 'window'],
  ['on a windowsill', 'window'],
  ['on the windowsill', 'window'],
]);

const LIGHT_WORDS: Phrase<Light>[] = longestFirst([
  ['in evening light', 'evening'],
  ['evening light', 'evening'],
  ['in the evening', 'evening'],
  ['at sunset', 'evening'],
  ['low sun', 'evening'],
  ['at dusk', 'dusk'],
  ['at night', 'dusk'],
  ['at dawn', 'dawn'],
  ['morning light', 'dawn'],
  ['in the morning', 'dawn'],
  ['lit from the right', 'light from the right'],
  ['light from the right', 'light from the right'],
  ['lit from the left', 'daylight'],
  ['light from the left', 'daylight'],
  ['lit from above', 'light from above'],
  ['light from above', 'light from above'],
  ['at noon', 'light from above'],
]);

const SEASON_WORDS: Phrase<Season>[] = longestFirst([
  ['in early spring', 'spring'],
  ['in spring', 'spring'],
  ['in summer', 'summer'],
  ['in autumn', 'autumn'],
  ['in winter', 'winter'],
  ['in the frost', 'winter'],
  ['in frost', 'winter'],
  ['frosted', 'winter'],
  ['frosty', 'winter'],
  ['first frost', 'winter'],
]);

const PART_WORDS: Phrase<PartName>[] = longestFirst([
  ['leaves', 'leaves'],
  ['leaf', 'leaves'],
  ['foliage', 'leaves'],
  ['fronds', 'leaves'],
  ['petals', 'petals'],
  ['beans', 'beans'],
  ['stripes', 'stripes'],
]);
const FEWER_OR_MORE = new RegExp(
  ` (many |much )?(fewer|less|more)(?: of)?(?: the)? (${PART_WORDS.map(([w]) => w).join('|')})(?= )`,
  'g',
);

/** Words that carry no picture and so are never reported as ignored. */
const SILENT = new Set(
  'a an the of on in with and or its their this that single plain ground picture image drawing drawn illustration print painting whole fresh freshly pulled just small large big little tall round old young ripe for to at from by no as up out over under each very'.split(
    ' ',
  ),
);

/** Takes the first of some phrases out of a text, and says what it stands for. */
function take<T>(text: string, phrases: readonly Phrase<T>[]): { text: string; value: T | undefined } {
  const hit = phrases.find(([words]) => text.includes(` ${words} `));
  if (!hit) return { text, value: undefined };
  // What says the same again is taken out with it.
  const again = phrases.filter(p => p[1] === hit[1]);
  return { text: again.reduce((t, [words]) => t.replace(` ${words} `, ' '), text), value: hit[1] };
}

/**
 * Finds the subject a wording names, longest phrase first, what it asks of it (count, colour, setting, light, season), and the words that
 * are not drawn. A thing that is not on the list but has a near relation there is drawn as that, and said so; anything else is refused.
 */
export function findSubject(wording: string): Found {
  const text = plain(wording);
  const own = take(text, PHRASES);
  const near = own.value ? null : take(text, NEAR);
  const subject = own.value ?? (near?.value ? (SUBJECTS.find(s => s.name === near.value) ?? null) : null);
  if (!subject) return { subject: null, drawnAs: null, wishes: {}, ignored: [] };
  const { wishes, ignored } = wishesIn((near ?? own).text, subject);
  return { subject, drawnAs: near?.value ? subject.name : null, wishes, ignored };
}

/** What words around a subject ask of its drawing, and those of them that are not drawn; they name no subject themselves. */
export function findWishes(words: string, subject: DrawnSubject | null = null): Pick<Found, 'wishes' | 'ignored'> {
  return wishesIn(plain(words), subject);
}

/** Small letters and single spaces, one before and one after. */
function plain(words: string): string {
  return ` ${words
    .toLowerCase()
    .replace(/’/g, "'")
    .replace(/[^a-z0-9'-]+/g, ' ')} `.replace(/ +/g, ' ');
}

/** Takes out what is said of the number of parts; of a thing that has no such parts it stays, and is told as not drawn. */
function takeParts(text: string, subject: DrawnSubject | null): { text: string; value: Wishes['parts'] } {
  const value: NonNullable<Wishes['parts']> = {};
  const left = text.replace(FEWER_OR_MORE, (all, much: string | undefined, way: string, word: string) => {
    const part = PART_WORDS.find(([w]) => w === word)![1];
    if (subject && !subject.parts?.includes(part)) return all;
    value[part] = (value[part] ?? 0) + (way === 'more' ? 1 : -1) * (much ? 2 : 1);
    return '';
  });
  return { text: left, value: Object.keys(value).length > 0 ? value : undefined };
}

function wishesIn(whole: string, subject: DrawnSubject | null): Pick<Found, 'wishes' | 'ignored'> {
  const { text, value: parts } = takeParts(whole, subject);
  const setting = take(text, SETTING_WORDS);
  const light = take(setting.text, LIGHT_WORDS);
  const season = take(light.text, SEASON_WORDS);
  const colour = take(season.text, COLOURS);
  const figure = / ([1-9]) /.exec(colour.text);
  const count = figure ? { text: colour.text.replace(figure[0], ' '), value: Number(figure[1]) } : take(colour.text, COUNTS);
  const wishes: Wishes = {};
  if (parts) wishes.parts = parts;
  if (setting.value) wishes.setting = setting.value;
  if (light.value) wishes.light = light.value;
  if (season.value) wishes.season = season.value;
  if (colour.value) wishes.colour = labOfHex(colour.value);
  if (count.value) wishes.count = Math.min(MOST_COUNT, count.value);
  const ignored = count.text
    .trim()
    .split(/\s+/)
    .filter(w => w.length > 2 && !SILENT.has(w));
  return { wishes, ignored: [...new Set(ignored)] };
}
