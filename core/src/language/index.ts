export { analyse, Analysis, bandOf, BANDS, costOf, countOf, inOrder, Rates, sumOf } from './analyse.ts';
export type { Band, Count } from './analyse.ts';
export { faultsOf, FAULTS, mended } from './checks.ts';
export type { Fault, SegmentFinding } from './checks.ts';
export { codesOf, contentOf, pairCodes, signaturesOf } from './codes.ts';
export type { Code, Coded } from './codes.ts';
export { afterwards, comingBack, isGood, isTakeable, newEdition, taken } from './comingBack.ts';
export type { Return, Returned } from './comingBack.ts';
export { byConventions, decimalMark } from './conventions.ts';
export { cutIntoSegments } from './cut.ts';
export {
  deskRows,
  holds,
  joinedWithNext,
  partedAt,
  partedIntoSentences,
  placesToPart,
  replacedIn,
  segmentsOf,
  unitWith,
} from './deskRows.ts';
export type { DeskRow } from './deskRows.ts';
export { differences } from './differences.ts';
export { editDistance, percentAlike, tokensOf } from './editDistance.ts';
export type { ExchangeJob, Inbound, InboundSegment, Outbound } from './exchange.ts';
export { EXEMPLARS } from './exemplars.ts';
export { expectedLength, inForecast, lengthsIn } from './forecast.ts';
export type { Expected, Lengths } from './forecast.ts';
export { lettersOf } from './lettersOf.ts';
export { lettersReport, LettersReport } from './lettersReport.ts';
export type { FaceAtHand, FamilyLetters } from './lettersReport.ts';
export { composeStories, fitFindings, overflowing } from './fit.ts';
export type { Overflowing } from './fit.ts';
export { fixedTextIn } from './fixedTexts.ts';
export { editionsOfBefore, unitsFromParagraphs } from './fromParagraphs.ts';
export { ChoiceOfTexts, choiceOfTexts, cutUnit, goesOut, primary, rulesOf } from './goesOut.ts';
export type { Outgoing, StaysBecause } from './goesOut.ts';
export { inEdition, isFromTheRight, wholeEdition } from './inEdition.ts';
export { LEAST_FUZZY, Memory, memoryKey } from './memory.ts';
export type { Match, MemoryUnit } from './memory.ts';
export { onlyOfJob, reachOf, rowsOfJob } from './onlyOfJob.ts';
export type { JobTexts } from './onlyOfJob.ts';
export { memoryUnitsOf } from './memoryUnits.ts';
export { codesIn, fromReadable, joined, keyOf, readable, renumbered, sameParts, wordsOf } from './parts.ts';
export { fromMatch, memoryOfEdition, outboundOf } from './outbound.ts';
export type { Pretranslation } from './outbound.ts';
export { progressOf, standingsOf } from './progress.ts';
export type { Progress, Standings } from './progress.ts';
export { pseudoTranslation } from './pseudo.ts';
export { SHIPPED_SRX, shippedRules } from './sentenceRules.ts';
export { sentenceBreaks, readSrx } from './srx.ts';
export { translatedByService } from './simulatedService.ts';
export { standingOf } from './standing.ts';
export type { Standing } from './standing.ts';
export { STATES, stateOf, withinReach, writtenState } from './states.ts';
export { Term, termsIn, termsMissing } from './terms.ts';
export { translatorsUnits } from './translatorsEdit.ts';
export type { Translator } from './translatorsEdit.ts';
export { segmentId, unitOfSegment } from './unit.ts';
export type { CutUnit, Unit } from './unit.ts';
export { unitsOf } from './unitsOf.ts';
