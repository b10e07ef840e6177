import { articleWriter } from './article/index.ts';
import { docxWriter } from './docx/index.ts';
import { epubWriter } from './epub/index.ts';
import { fixedEpubWriter } from './epub-fixed/index.ts';
import { htmlWriter } from './html/index.ts';
import { odpWriter } from './odp/index.ts';
import { odtWriter } from './odt/index.ts';
import { pdfWriter } from './pdf/index.ts';
import { pptxWriter } from './pptx/index.ts';
import type { Writer } from './writer.ts';

/** Every output. A new one is a folder here and a line below. */
export const WRITERS: readonly Writer[] = [
  htmlWriter,
  pdfWriter,
  epubWriter,
  fixedEpubWriter,
  articleWriter,
  docxWriter,
  pptxWriter,
  odpWriter,
  odtWriter,
] as unknown as Writer[];

export const writerById = (id: string): Writer | undefined => WRITERS.find((w) => w.id === id);

export { convert, readSettings } from './convert.ts';
export type { Conversion } from './convert.ts';
export type { ConversionPorts, OutputFile, Start, WriteJob, Writer, WrittenFile } from './writer.ts';
export { readRecipe, RecipeFile } from './recipeFile.ts';
export { packFolio } from './efolio/packFolio.ts';
export { keywordsFor } from './html/keywords.ts';
export { webFont } from './shared/subsetFont.ts';
export { zipFiles } from './zipFiles.ts';
