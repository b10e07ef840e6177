import { articleWriter } from './article/index.ts';
import { csvWriter } from './csv/index.ts';
import { docxColumnsWriter } from './docx-columns/index.ts';
import { docxWriter } from './docx/index.ts';
import { epubWriter } from './epub/index.ts';
import { fixedEpubWriter } from './epub-fixed/index.ts';
import { htmlWriter } from './html/index.ts';
import { xmlWriter } from './its/index.ts';
import { odpWriter } from './odp/index.ts';
import { odtWriter } from './odt/index.ts';
import { pdfWriter } from './pdf/index.ts';
import { poWriter } from './po/index.ts';
import { pptxWriter } from './pptx/index.ts';
import { tmxWriter } from './tmx/index.ts';
import { xliff12Writer } from './xliff-1.2/index.ts';
import { xliff21Writer } from './xliff-2.1/index.ts';
import { xlsxWriter } from './xlsx/index.ts';
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
  xliff12Writer,
  xliff21Writer,
  xlsxWriter,
  docxColumnsWriter,
  tmxWriter,
  poWriter,
  csvWriter,
  xmlWriter,
] as unknown as Writer[];

export const writerById = (id: string): Writer | undefined => WRITERS.find((w) => w.id === id);

export { COMMON_SENTENCES, convert, plannedLedger, readSettings } from './convert.ts';
export type { Conversion } from './convert.ts';
export type { ConversionPorts, OutputFile, Start, WriteJob, Writer, WrittenFile } from './writer.ts';
export { readRecipe, RecipeFile } from './recipeFile.ts';
export { packFolio } from './efolio/packFolio.ts';
export { ExchangeSettings } from './exchange/exchangeSettings.ts';
export { BAND_NAMES } from './exchange/exchangeReport.ts';
export { writeMemory } from './tmx/index.ts';
export { keywordsFor } from './html/keywords.ts';
export { webFont } from './assets/subsetFont.ts';
export { zipFiles } from './assets/zipFiles.ts';
export { translatedOriginal } from './original/translatedOriginal.ts';
export { ledgerFile } from '../ledger/ledgerFile.ts';
