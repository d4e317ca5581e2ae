export { floatsAt, inBlocks, kernels, plane, put, room, take, within, zeros } from './heap.ts';
export { interpolateAt, placesAlong, type Places } from './places.ts';
