import { connect } from './dom.ts';
import { readProgram } from './program.ts';

const program = readProgram(document.getElementById('program')?.textContent ?? '');
if (program) connect(program, document);
