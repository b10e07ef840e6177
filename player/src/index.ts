export type { Program } from './program.ts';
export { readProgram } from './program.ts';
export { eventForKey, eventForSwipe, start, step } from './state.ts';
export type { Event, State } from './state.ts';
