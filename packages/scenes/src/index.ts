export { type Scene } from './canvas/canvas.ts';
export { drawSubject, MOST_COUNT, type Wishes } from './draw.ts';
export { LIGHTS, SEASONS, SETTINGS, type Light, type Season, type Setting } from './setting.ts';
export { findSubject, findWishes, type Found } from './find.ts';
export { SUBJECTS } from './subjects/index.ts';
export { YARDSTICK } from './yardstick.ts';
export { photograph } from './photo.ts';
