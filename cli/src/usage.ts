/** The command was called in a way it does not know: exit code 2. */
export class UsageError extends Error {}

export const USAGE = `Usage:
  folio inspect FILE [--json]
  folio convert FILE --to html,pdf --out DIR [--recipe FILE] [--edition LANG] [--pages 2-5] [--json]
  folio corrections FILE --from CHANGED.docx [--out NEW.efolio] [--json]
  folio segments FILE… --to xliff-2.1 --target LANG --out DIR [--source LANG] [--copy-source] [--sentences] [--memory FILE.tmx] [--recipe FILE] [--pages 2-5] [--json]
  folio edition FILE --from EXCHANGE --target LANG --out DIR [--good] [--flatten] [--original] [--json]
  folio samples --out DIR [--json]

inspect      what is in a document, and what should be looked at
convert      writes outputs into DIR/<output>/, each with its ledger.json
corrections  what colleagues changed in a text document or a deck of slides that was written from FILE; with --out, a package in which it is taken
segments     writes the texts for translators, as xliff-1.2, xliff-2.1, xlsx, docx-columns, tmx, po, csv or xml; several files are counted as one set
edition      takes what a translator sent back into the document’s edition in that language: all that can be taken, or with --good only what needs no look;
             --flatten makes a package of its own in that language, --original the translated OpenDocument file as well
samples      writes the sample documents into DIR, as packages and as OpenDocument files

--json prints one object on standard output and nothing else.
Exit codes: 0 done, 1 failed, 2 wrong usage.`;
