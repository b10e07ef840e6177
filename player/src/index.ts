export type * from './program.ts';
export { readProgram } from './program.ts';
export { Conductor } from './conductor.ts';
export type { Hands } from './conductor.ts';
export { animationFrames, cardFrames, sideOf, transitionFrames } from './keyframes.ts';
export { flakeKey, flakesAlong } from './flakesAlong.ts';
export { eventForKey, eventForSwipe, start, step } from './state.ts';
export type { Event, State } from './state.ts';
