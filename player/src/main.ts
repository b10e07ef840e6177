import { play } from './play.ts';
import { readProgram } from './program.ts';

const program = readProgram(document.getElementById('program')?.textContent ?? '');
if (program) play(program, document);
