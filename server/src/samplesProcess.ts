import { writeSamples } from '@elastic-folio/demo';

// Draws the sample documents into a folder, in one of their formats, and prints what they are, in a process of its own: what
// memory their art takes is given back at its end.
const [folder, format] = process.argv.slice(2);
console.log(JSON.stringify(await writeSamples(folder!, [format === 'openDocument' ? 'openDocument' : 'efolio'])));
