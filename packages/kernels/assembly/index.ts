export * from './areas';
export * from './blur';
export * from './colour';
export * from './marks';
export * from './measures';
export * from './passes';
export * from './resample';
export * from './smooth';
export * from './tensor';

/** Where free memory begins. */
export function heapBase(): usize {
  return __heap_base;
}
