import type { TemplateInput } from '@zinc/contract';

type Slots = TemplateInput['slots'];
const choice = (name: string, choices: string[], help: string): Slots[number] => ({
  name,
  kind: 'choice',
  choices,
  default: choices[0],
  help,
});
const template = (name: string, text: string, slots: Slots = [], avoid: string[] = []): TemplateInput => ({
  name,
  text,
  slots,
  avoid,
});

/** What each month is in the garden, in words that the house press draws. */
export const MONTHS = [
  'January in frost at dawn',
  'February in winter',
  'March in early spring',
  'April in spring in morning light',
  'May in spring',
  'June in summer in morning light',
  'July in summer at noon',
  'August in summer in evening light',
  'September in autumn',
  'October in autumn in evening light',
  'November in autumn at dusk',
  'December in winter at dusk',
];

/** Templates that join the demo house in the background. */
export const MORE_TEMPLATES: readonly TemplateInput[] = [
  template('Garden calendar', '{{subject}} in the garden, {{month}}', [choice('month', MONTHS, 'The month, and how it looks')]),
  template('Market poster', '{{count}} {{subject}}, seen close, {{light}}', [
    { name: 'count', kind: 'number', choices: [], default: '1', help: 'How many of them' },
    choice('light', ['at noon', 'in evening light'], 'When the market is'),
  ]),
  template('Stall banner', '{{subject}} on plain ground, room beside it for prices', [], ['hands']),
  template('Packet front', 'One {{subject}} on plain ground, {{colour}}', [
    { name: 'colour', kind: 'colour', choices: [], default: '', help: 'A colour of its own, when the sort has one' },
  ]),
  template('Packet back', 'Small {{subject}} on plain ground'),
  template('Herb label', 'A sprig of {{subject}} on plain ground'),
  template('Window display', '{{subject}} by a window, {{light}}', [
    choice('light', ['morning light', 'light from the right', 'at dusk'], 'Which side of the shop'),
  ]),
  template('Recipe card', '{{subject}} on a wooden table, lit from above', [], ['cutlery']),
  template('Winter card', '{{subject}} in frost, {{when}}', [choice('when', ['at dawn', 'at dusk'], 'Short days')]),
  template('Sale sign', '{{subject}} on plain ground, with the words {{words}}', [
    { name: 'words', kind: 'lettering', choices: [], default: 'Half price', help: 'Exactly these letters' },
  ]),
  template('Bare', '{{subject}}'),
];
