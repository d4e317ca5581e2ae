export * from '../people/tables.ts';
export * from '../house/tables.ts';
export * from '../house/eventTables.ts';
export * from '../shelf/tables.ts';
export * from '../mix/tables.ts';
export * from '../wording/tables.ts';
export * from '../runs/tables.ts';
export * from '../review/tables.ts';
