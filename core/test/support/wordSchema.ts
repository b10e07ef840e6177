import { elements, openChecked } from './officeSchema.ts';
import type { Element, Rules } from './officeSchema.ts';

/**
 * Rules of ISO/IEC 29500 that a text document must keep, written from the standard’s schemas (wml.xsd, dml-wordprocessingDrawing.xsd,
 * dml-picture.xsd, transitional; by memory), not from the writer: which elements may stand in which, in which order and how often;
 * values of attributes; content types and relationships (29500-2); ids that stand once.
 */

const w = (names: string): string[] => names.split(' ').map((n) => (/[:*]/.test(n) && n.includes(':') ? n : `w:${n}`));
/** Children in their order; `*` may stand several times, all others once. */
const SEQUENCES: Record<string, string[]> = {
  'w:document': w('background body'),
  'w:p': [],
  'w:pPr': w(
    'pStyle keepNext keepLines pageBreakBefore framePr widowControl numPr suppressLineNumbers pBdr shd tabs suppressAutoHyphens kinsoku wordWrap overflowPunct topLinePunct autoSpaceDE autoSpaceDN bidi adjustRightInd snapToGrid spacing ind contextualSpacing mirrorIndents suppressOverlap jc textDirection textAlignment textboxTightWrap outlineLvl divId cnfStyle rPr sectPr pPrChange',
  ),
  'w:rPr': w(
    'rStyle rFonts b bCs i iCs caps smallCaps strike dstrike outline shadow emboss imprint noProof snapToGrid vanish webHidden color spacing w kern position sz szCs highlight u effect bdr shd fitText vertAlign rtl cs em lang eastAsianLayout specVanish oMath w14:ligatures w14:numForm w14:numSpacing w14:stylisticSets w14:cntxtAlts',
  ),
  'w:numPr': w('ilvl numId'),
  'w:pBdr': w('top left bottom right between bar'),
  'w:tabs': w('tab*'),
  'w:tbl': w('bookmarkStart* bookmarkEnd* tblPr tblGrid tr*'),
  'w:tblPr': w(
    'tblStyle tblpPr tblOverlap bidiVisual tblStyleRowBandSize tblStyleColBandSize tblW jc tblCellSpacing tblInd tblBorders shd tblLayout tblCellMar tblLook tblCaption tblDescription',
  ),
  'w:tblGrid': w('gridCol*'),
  'w:tr': w('tblPrEx trPr tc*'),
  'w:tcPr': w('cnfStyle tcW gridSpan hMerge vMerge tcBorders shd noWrap tcMar textDirection tcFitText vAlign hideMark'),
  'w:tcBorders': w('top left bottom right insideH insideV tl2br tr2bl'),
  'w:tcMar': w('top left bottom right'),
  'w:sectPr': w(
    'headerReference* footerReference* footnotePr endnotePr type pgSz pgMar paperSrc pgBorders lnNumType pgNumType cols formProt vAlign noEndnote titlePg textDirection bidi rtlGutter docGrid printerSettings',
  ),
  'w:styles': w('docDefaults latentStyles style*'),
  'w:docDefaults': w('rPrDefault pPrDefault'),
  'w:rPrDefault': w('rPr'),
  'w:pPrDefault': w('pPr'),
  'w:style': w(
    'name aliases basedOn next link autoRedefine hidden uiPriority semiHidden unhideWhenUsed qFormat locked personal personalCompose personalReply rsid pPr rPr tblPr trPr tcPr tblStylePr*',
  ),
  'w:tblStylePr': w('pPr rPr tblPr trPr tcPr'),
  'w:numbering': w('numPicBullet* abstractNum* num* numIdMacAtCleanup'),
  'w:abstractNum': w('nsid multiLevelType tmpl name styleLink numStyleLink lvl*'),
  'w:lvl': w('start numFmt lvlRestart pStyle isLgl suff lvlText lvlPicBulletId legacy lvlJc pPr rPr'),
  'w:num': w('abstractNumId lvlOverride*'),
  'w:lvlOverride': w('startOverride lvl'),
  'w:fonts': w('font*'),
  'w:font': w('altName panose1 charset family notTrueType pitch sig embedRegular embedBold embedItalic embedBoldItalic'),
  'w:footnotes': w('footnote*'),
  'w:endnotes': w('endnote*'),
  'w:ruby': w('rubyPr rt rubyBase'),
  'w:rubyPr': w('rubyAlign hps hpsRaise hpsBaseText lid dirty'),
  'w:sdt': w('sdtPr sdtEndPr sdtContent'),
  'w:settings': w(
    'writeProtection view zoom removePersonalInformation removeDateAndTime doNotDisplayPageBoundaries displayBackgroundShape printPostScriptOverText printFractionalCharacterWidth printFormsData embedTrueTypeFonts embedSystemFonts saveSubsetFonts saveFormsData mirrorMargins alignBordersAndEdges bordersDoNotSurroundHeader bordersDoNotSurroundFooter gutterAtTop hideSpellingErrors hideGrammaticalErrors activeWritingStyle* proofState formsDesign attachedTemplate linkStyles stylePaneFormatFilter stylePaneSortMethod documentType mailMerge revisionView trackRevisions doNotTrackMoves doNotTrackFormatting documentProtection autoFormatOverride styleLockTheme styleLockQFSet defaultTabStop autoHyphenation consecutiveHyphenLimit hyphenationZone doNotHyphenateCaps showEnvelope summaryLength clickAndTypeStyle defaultTableStyle evenAndOddHeaders bookFoldRevPrinting bookFoldPrinting bookFoldPrintingSheets drawingGridHorizontalSpacing drawingGridVerticalSpacing displayHorizontalDrawingGridEvery displayVerticalDrawingGridEvery doNotUseMarginsForDrawingGridOrigin drawingGridHorizontalOrigin drawingGridVerticalOrigin doNotShadeFormData noPunctuationKerning characterSpacingControl printTwoOnOne strictFirstAndLastChars noLineBreaksAfter noLineBreaksBefore savePreviewPicture doNotValidateAgainstSchema saveInvalidXml ignoreMixedContent alwaysShowPlaceholderText doNotDemarcateInvalidXml saveXmlDataOnly useXSLTWhenSaving saveThroughXslt showXMLTags alwaysMergeEmptyNamespace updateFields hdrShapeDefaults footnotePr endnotePr compat docVars rsids mathPr attachedSchema* themeFontLang clrSchemeMapping doNotIncludeSubdocsInStats doNotAutoCompressPictures forceUpgrade captions readModeInkLockDown smartTagType* schemaLibrary shapeDefaults doNotEmbedSmartTags decimalSymbol listSeparator',
  ),
  'w:drawing': ['wp:inline', 'wp:anchor'],
  'wp:inline': ['wp:extent', 'wp:effectExtent', 'wp:docPr', 'wp:cNvGraphicFramePr', 'a:graphic'],
  'pic:pic': ['pic:nvPicPr', 'pic:blipFill', 'pic:spPr'],
  'pic:nvPicPr': ['pic:cNvPr', 'pic:cNvPicPr'],
  'pic:blipFill': ['a:blip', 'a:srcRect', 'a:tile', 'a:stretch'],
  'pic:spPr': ['a:xfrm', 'a:custGeom', 'a:prstGeom', 'a:noFill', 'a:solidFill', 'a:gradFill', 'a:ln', 'a:effectLst'],
  'wp:anchor': [
    'wp:simplePos',
    'wp:positionH',
    'wp:positionV',
    'wp:extent',
    'wp:effectExtent',
    'wp:wrapNone',
    'wp:wrapSquare',
    'wp:docPr',
    'wp:cNvGraphicFramePr',
    'a:graphic',
  ],
  'wp:positionH': ['wp:align', 'wp:posOffset'],
  'wp:positionV': ['wp:align', 'wp:posOffset'],
  'wp:docPr': ['a:hlinkClick', 'a:hlinkHover', 'a:extLst'],
  // [MS-DOCX] 2.9.1: CT_WordprocessingShape.
  'wps:wsp': ['wps:cNvPr', 'wps:cNvSpPr', 'wps:spPr', 'wps:style', 'wps:extLst', 'wps:txbx', 'wps:linkedTxbx', 'wps:bodyPr'],
  'wps:spPr': ['a:xfrm', 'a:custGeom', 'a:prstGeom', 'a:noFill', 'a:solidFill', 'a:gradFill', 'a:blipFill', 'a:ln', 'a:effectLst'],
  'wps:bodyPr': ['a:prstTxWarp', 'a:noAutofit', 'a:normAutofit', 'a:spAutoFit'],
  'wps:txbx': ['w:txbxContent'],
  'mc:AlternateContent': ['mc:Choice*', 'mc:Fallback'],
};

const INLINE = w('r hyperlink bookmarkStart bookmarkEnd proofErr fldSimple sdt smartTag ins del');
const BLOCK = w('p tbl sdt bookmarkStart bookmarkEnd sectPr');
/** What may stand in these in any order. */
const CHOICES: Record<string, string[]> = {
  'w:body': BLOCK,
  'w:tc': [...w('tcPr'), ...BLOCK],
  'w:trPr': w('cnfStyle divId gridBefore gridAfter wBefore wAfter cantSplit trHeight tblHeader tblCellSpacing jc hidden'),
  'w:p': [...w('pPr'), ...INLINE],
  'w:hyperlink': INLINE,
  'w:r': w(
    'rPr br t instrText noBreakHyphen softHyphen sym pgNum cr tab drawing pict mc:AlternateContent fldChar ruby footnoteReference endnoteReference footnoteRef endnoteRef separator continuationSeparator lastRenderedPageBreak',
  ),
  'w:footnote': BLOCK,
  'w:endnote': BLOCK,
  'w:ftr': BLOCK,
  'w:hdr': BLOCK,
  'w:txbxContent': BLOCK,
  'w:rt': INLINE,
  'w:rubyBase': INLINE,
  'w:sdtContent': [...BLOCK, ...INLINE],
};
/** What must stand first, where it stands at all. */
const FIRST = new Set(w('pPr rPr tcPr trPr tblPr'));
/** What must not be missing. */
const REQUIRED: Record<string, string[]> = {
  'w:style': ['w:name'],
  'w:tbl': ['w:tblPr', 'w:tblGrid'],
  'w:tc': ['w:p'],
  'wp:inline': ['wp:extent', 'wp:docPr', 'a:graphic'],
  'pic:pic': ['pic:nvPicPr', 'pic:blipFill', 'pic:spPr'],
  'w:abstractNum': ['w:lvl'],
  'w:num': ['w:abstractNumId'],
};

const INTEGER = /^-?\d+$/;
const ONOFF = /^(0|1|true|false|on|off)$/;
const COLOUR = /^(auto|[0-9A-F]{6})$/;
/** Values of attributes by their elements (simple types of wml.xsd). */
const VALUES: Record<string, Record<string, RegExp>> = {
  'w:jc': { 'w:val': /^(start|center|end|both|distribute|left|right|mediumKashida|numTab|highKashida|lowKashida|thaiDistribute)$/ },
  'w:sz': { 'w:val': /^\d+$/ },
  'w:color': { 'w:val': COLOUR },
  'w:shd': { 'w:val': /^(clear|nil|solid|pct\d+)$/, 'w:fill': COLOUR, 'w:color': COLOUR },
  'w:spacing': { 'w:val': INTEGER, 'w:before': /^\d+$/, 'w:after': /^\d+$/, 'w:line': INTEGER, 'w:lineRule': /^(auto|exact|atLeast)$/ },
  'w:ind': { 'w:left': INTEGER, 'w:right': INTEGER, 'w:firstLine': /^\d+$/, 'w:hanging': /^\d+$/ },
  'w:w': { 'w:val': /^([1-9]\d?|[1-5]\d\d|600)$/ },
  'w:outlineLvl': { 'w:val': /^[0-9]$/ },
  'w:ilvl': { 'w:val': /^[0-8]$/ },
  'w:vertAlign': { 'w:val': /^(baseline|superscript|subscript)$/ },
  'w:u': { 'w:val': /^(single|none|double|dotted|dash|wave|words|thick)$/, 'w:color': COLOUR },
  'w:fldChar': { 'w:fldCharType': /^(begin|separate|end)$/ },
  'w:tab': {
    'w:val': /^(clear|start|center|end|decimal|bar|num|left|right)$/,
    'w:leader': /^(none|dot|hyphen|underscore|heavy|middleDot)$/,
    'w:pos': INTEGER,
  },
  'w:trHeight': { 'w:val': /^\d+$/, 'w:hRule': /^(auto|exact|atLeast)$/ },
  'w:vMerge': { 'w:val': /^(restart|continue)$/ },
  'w:vAlign': { 'w:val': /^(top|center|both|bottom)$/ },
  'w:tblLayout': { 'w:type': /^(fixed|autofit)$/ },
  'w:tblLook': { 'w:val': /^[0-9A-F]{4}$/, 'w:firstRow': ONOFF },
  'w:type': { 'w:val': /^(nextPage|nextColumn|continuous|evenPage|oddPage)$/ },
  'w:pgSz': { 'w:w': /^\d+$/, 'w:h': /^\d+$/, 'w:orient': /^(portrait|landscape)$/ },
  'w:cols': { 'w:num': /^([1-9]|[1-3]\d|4[0-5])$/, 'w:space': /^\d+$/ },
  'w:numFmt': { 'w:val': /^(decimal|upperRoman|lowerRoman|upperLetter|lowerLetter|bullet|none)$/ },
  'w:bookmarkStart': { 'w:id': /^\d+$/, 'w:name': /^[A-Za-z_][A-Za-z0-9_]{0,39}$/ },
  'w:framePr': {
    'w:wrap': /^(auto|notBeside|around|tight|through|none)$/,
    'w:hAnchor': /^(text|margin|page)$/,
    'w:vAnchor': /^(text|margin|page)$/,
  },
  'w:style': { 'w:type': /^(paragraph|character|table|numbering)$/, 'w:styleId': /^\S{1,253}$/ },
  'wp:extent': { cx: /^\d+$/, cy: /^\d+$/ },
  'wps:linkedTxbx': { id: /^\d+$/, seq: /^[1-9]\d*$/ },
  ...Object.fromEntries(
    w('b bCs i iCs caps smallCaps strike keepNext keepLines pageBreakBefore widowControl suppressAutoHyphens bidi').map((n) => [
      n,
      { 'w:val': ONOFF },
    ]),
  ),
  ...Object.fromEntries(
    w('top left bottom right').map((n) => [
      n,
      {
        'w:val': /^(nil|none|single|dashed|dotted|thick|double)$/,
        'w:sz': /^([2-9]|[1-8]\d|9[0-6])$/,
        'w:space': /^([0-9]|[12]\d|3[01])$/,
        'w:color': COLOUR,
      },
    ]),
  ),
};

const RULES: Rules = {
  folder: 'word/',
  sequences: SEQUENCES,
  choices: CHOICES,
  first: FIRST,
  required: REQUIRED,
  values: VALUES,
  parts: {
    officeDocument: 'document.main|template.main',
    styles: 'styles',
    numbering: 'numbering',
    settings: 'settings',
    fontTable: 'fontTable',
    footnotes: 'footnotes',
    endnotes: 'endnotes',
    footer: 'footer',
    header: 'header',
  },
  // The last block of a cell is a paragraph (17.4.66).
  more: (e, say) => void (e.name === 'w:tc' && e.children.at(-1)?.name !== 'w:p' && say('does not end with a paragraph')),
};

/** All that is wrong with a text document by these rules. */
export function faultsOfDocx(bytes: Uint8Array): string[] {
  const { xml, faults } = openChecked(bytes, RULES);
  return [...faults, ...faultsOfIds(xml)];
}

/** Boxes that a text goes on in: the first has it, the others are counted from 1, each once ([MS-DOCX] 2.9.1, txbx and linkedTxbx). */
function faultsOfChains(list: readonly Element[]): string[] {
  const faults: string[] = [];
  const firsts = list.filter((e) => e.name === 'wps:txbx' && e.attributes['id'] !== undefined).map((e) => e.attributes['id']!);
  for (const id of firsts) if (firsts.filter((f) => f === id).length > 1) faults.push(`chain ${id} begins twice`);
  const next = new Map<string, number>();
  for (const e of list) {
    if (e.name !== 'wps:linkedTxbx') continue;
    const id = e.attributes['id']!;
    if (!firsts.includes(id)) faults.push(`chain ${id} does not begin`);
    next.set(id, (next.get(id) ?? 0) + 1);
  }
  for (const id of firsts) {
    const places = list.filter((e) => e.name === 'wps:linkedTxbx' && e.attributes['id'] === id).map((e) => Number(e.attributes['seq']));
    if (places.sort((a, b) => a - b).some((p, i) => p !== i + 1)) faults.push(`chain ${id} is counted ${places.join()}`);
    if (places.length > 31) faults.push(`chain ${id} has ${places.length + 1} boxes`);
  }
  return faults;
}

function faultsOfIds(xml: ReadonlyMap<string, Element>): string[] {
  const faults: string[] = [];
  const once = (list: string[], what: string): void => {
    const seen = new Set<string>();
    for (const id of list) {
      if (seen.has(id)) faults.push(`${what} ${id} stands twice`);
      seen.add(id);
    }
  };
  const of = (path: string): Element[] => (xml.has(path) ? [...elements(xml.get(path)!, true)] : []);
  const headers = [...xml.keys()].filter((p) => /^word\/header\d+\.xml$/.test(p));
  const text = ['word/document.xml', 'word/footnotes.xml', 'word/endnotes.xml', ...headers].flatMap(of);
  faults.push(...faultsOfChains(text));
  const attributes = (list: Element[], name: string, key: string): string[] =>
    list.filter((e) => e.name === name).map((e) => e.attributes[key]!);
  once(attributes(text, 'w:bookmarkStart', 'w:id'), 'bookmark');
  once(
    attributes(text, 'w:bookmarkStart', 'w:name').map((n) => n.toLowerCase()),
    'bookmark',
  );
  once(attributes(text, 'wp:docPr', 'id'), 'drawing');
  const [starts, ends] = [attributes(text, 'w:bookmarkStart', 'w:id'), attributes(text, 'w:bookmarkEnd', 'w:id')];
  if (starts.slice().sort().join() !== ends.slice().sort().join()) faults.push('bookmarks begin and do not end');
  const styles = of('word/styles.xml').filter((e) => e.name === 'w:style');
  once(
    styles.map((s) => s.attributes['w:styleId']!.toLowerCase()),
    'style',
  );
  const names = styles.flatMap((s) => [
    s.children.find((c) => c.name === 'w:name')!.attributes['w:val']!,
    ...(s.children.find((c) => c.name === 'w:aliases')?.attributes['w:val'] ?? '').split(','),
  ]);
  once(
    names.filter(Boolean).map((n) => n.toLowerCase()),
    'style name',
  );
  const ids = new Map(styles.map((s) => [s.attributes['w:styleId']!, s.attributes['w:type']!]));
  const refers: Record<string, string> = { 'w:pStyle': 'paragraph', 'w:rStyle': 'character', 'w:tblStyle': 'table' };
  for (const e of [...text, ...of('word/styles.xml')]) {
    const kind = refers[e.name];
    if (kind && ids.get(e.attributes['w:val']!) !== kind) faults.push(`${e.name} ${e.attributes['w:val']} is no style of its kind`);
  }
  for (const s of styles) {
    const seen = new Set<string>();
    for (let at: Element | undefined = s; at;) {
      const id = at.attributes['w:styleId']!;
      if (seen.has(id)) {
        faults.push(`style ${id} is based on itself`);
        break;
      }
      seen.add(id);
      const parent: string | undefined = at.children.find((c) => c.name === 'w:basedOn')?.attributes['w:val'];
      if (parent !== undefined && !ids.has(parent)) faults.push(`style ${id} is based on ${parent}, which is not there`);
      at = styles.find((x) => x.attributes['w:styleId'] === parent);
    }
  }
  const numbering = of('word/numbering.xml');
  const numbers = attributes(numbering, 'w:num', 'w:numId');
  once(numbers, 'number');
  once(attributes(numbering, 'w:abstractNum', 'w:abstractNumId'), 'definition of numbers');
  for (const id of attributes(text, 'w:numId', 'w:val')) if (!numbers.includes(id)) faults.push(`number ${id} is not there`);
  for (const kind of ['footnote', 'endnote']) {
    const notes = attributes(of(`word/${kind}s.xml`), `w:${kind}`, 'w:id');
    once(notes, kind);
    for (const id of attributes(text, `w:${kind}Reference`, 'w:id')) if (!notes.includes(id)) faults.push(`${kind} ${id} is not there`);
  }
  // A field that begins shows, and ends, in its own part (17.16.18).
  for (const path of ['word/document.xml', 'word/footnotes.xml', 'word/footer1.xml']) {
    const marks = attributes(of(path), 'w:fldChar', 'w:fldCharType');
    let depth = 0;
    for (const m of marks) {
      depth += m === 'begin' ? 1 : m === 'end' ? -1 : 0;
      if (depth < 0) faults.push(`${path}: a field ends that has not begun`);
    }
    if (depth) faults.push(`${path}: a field does not end`);
  }
  const names_ = new Set(attributes(text, 'w:bookmarkStart', 'w:name'));
  for (const name of attributes(text, 'w:hyperlink', 'w:anchor'))
    if (name !== undefined && !names_.has(name)) faults.push(`a link leads to ${name}, which is not there`);
  return faults;
}
