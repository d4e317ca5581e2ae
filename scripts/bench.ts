import { benchEngine } from '../bench/engine.ts';
import { benchStack } from '../bench/stack.ts';

console.log('Each figure is a ratio to a baseline taken in this same run; the times beside it are of this machine, now.');
await benchEngine();
await benchStack();
