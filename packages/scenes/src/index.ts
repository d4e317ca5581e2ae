export { type Scene } from './canvas/canvas.ts';
export { drawSubject } from './draw.ts';
export { findSubject, type Found } from './find.ts';
export { SUBJECTS } from './subjects/index.ts';
export { YARDSTICK } from './yardstick.ts';
