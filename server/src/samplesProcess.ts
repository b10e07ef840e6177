import { writeSamples } from '@elastic-folio/demo';

// Draws the sample documents into a folder and prints where they are, in a process of its own: what memory their art takes
// is given back at its end.
console.log(JSON.stringify((await writeSamples(process.argv[2]!, ['efolio'])).map((file) => file.path)));
