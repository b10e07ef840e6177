import { elements, openChecked } from './officeSchema.ts';
import type { Element, Rules } from './officeSchema.ts';

/**
 * Rules of ISO/IEC 29500 that a deck of slides must keep, written from the standard’s schemas (pml.xsd, dml-main.xsd, transitional; by
 * memory), not from the writer.
 */

const p = (names: string): string[] => names.split(' ').map((n) => (n.includes(':') ? n : `p:${n}`));
const a = (names: string): string[] => names.split(' ').map((n) => (n.includes(':') ? n : `a:${n}`));

const PROPERTIES = a(
  'xfrm custGeom prstGeom noFill solidFill gradFill blipFill pattFill grpFill ln effectLst effectDag scene3d sp3d extLst',
);
const TEXT = a(
  'lnSpc spcBef spcAft buClrTx buClr buSzTx buSzPct buSzPts buFontTx buFont buNone buAutoNum buChar buBlip tabLst defRPr extLst',
);
const RUN = a(
  'ln noFill solidFill gradFill effectLst highlight uLnTx uLn uFillTx uFill latin ea cs sym hlinkClick hlinkMouseOver rtl extLst',
);
const SEQUENCES: Record<string, string[]> = {
  'p:presentation': p(
    'sldMasterIdLst notesMasterIdLst handoutMasterIdLst sldIdLst sldSz notesSz smartTags embeddedFontLst custShowLst photoAlbum custDataLst kinsoku defaultTextStyle modifyVerifier extLst',
  ),
  'p:sldMasterIdLst': p('sldMasterId*'),
  'p:notesMasterIdLst': p('notesMasterId'),
  'p:sldIdLst': p('sldId*'),
  'p:sld': p('cSld clrMapOvr transition timing extLst'),
  'p:sldLayout': p('cSld clrMapOvr transition timing hf extLst'),
  'p:sldMaster': p('cSld clrMap sldLayoutIdLst transition timing hf txStyles extLst'),
  'p:notes': p('cSld clrMapOvr extLst'),
  'p:notesMaster': p('cSld clrMap hf notesStyle extLst'),
  'p:cSld': p('bg spTree custDataLst controls extLst'),
  'p:bg': p('bgPr bgRef'),
  'p:bgPr': a('noFill solidFill gradFill blipFill pattFill grpFill effectLst effectDag extLst'),
  'p:spTree': p('nvGrpSpPr grpSpPr sp* grpSp* graphicFrame* cxnSp* pic* contentPart* extLst'),
  'p:nvGrpSpPr': p('cNvPr cNvGrpSpPr nvPr'),
  'p:grpSpPr': a('xfrm noFill solidFill gradFill effectLst extLst'),
  'p:sp': p('nvSpPr spPr style txBody extLst'),
  'p:nvSpPr': p('cNvPr cNvSpPr nvPr'),
  'p:cNvPr': a('hlinkClick hlinkHover extLst'),
  'p:cNvSpPr': a('spLocks extLst'),
  'p:nvPr': p('ph a:audioCd a:wavAudioFile a:audioFile a:videoFile a:quickTimeFile custDataLst extLst'),
  'p:spPr': PROPERTIES,
  'p:pic': p('nvPicPr blipFill spPr style extLst'),
  'p:nvPicPr': p('cNvPr cNvPicPr nvPr'),
  'p:blipFill': a('blip srcRect tile stretch'),
  'p:graphicFrame': p('nvGraphicFramePr xfrm a:graphic extLst'),
  'p:nvGraphicFramePr': p('cNvPr cNvGraphicFramePr nvPr'),
  'p:xfrm': a('off ext'),
  'p:txBody': a('bodyPr lstStyle p*'),
  'a:txBody': a('bodyPr lstStyle p*'),
  'a:bodyPr': a('prstTxWarp noAutofit normAutofit spAutoFit scene3d sp3d flatTx extLst'),
  'a:pPr': TEXT,
  'a:lvl1pPr': TEXT,
  'a:rPr': RUN,
  'a:endParaRPr': RUN,
  'a:defRPr': RUN,
  'a:r': a('rPr t'),
  'a:br': a('rPr'),
  'a:fld': a('rPr pPr t'),
  'a:tbl': a('tblPr tblGrid tr*'),
  'a:tblPr': a('noFill solidFill gradFill effectLst tableStyle tableStyleId extLst'),
  'a:tblGrid': a('gridCol*'),
  'a:tr': a('tc* extLst'),
  'a:tc': a('txBody tcPr extLst'),
  'a:tcPr': a('lnL lnR lnT lnB lnTlToBr lnBlToTr cell3D noFill solidFill gradFill blipFill pattFill grpFill headers extLst'),
  'a:tblStyle': a('tblBg wholeTbl band1H band2H band1V band2V lastCol firstCol lastRow seCell swCell firstRow neCell nwCell extLst'),
  ...Object.fromEntries(['a:wholeTbl', 'a:band2H', 'a:firstRow'].map((n) => [n, a('tcTxStyle tcStyle')])),
  'a:tcStyle': a('tcBdr fill fillRef cell3D'),
  'a:tcBdr': a('left right top bottom insideH insideV tl2br tr2bl extLst'),
  'a:theme': a('themeElements objectDefaults extraClrSchemeLst custClrLst extLst'),
  'a:themeElements': a('clrScheme fontScheme fmtScheme extLst'),
  'a:clrScheme': a('dk1 lt1 dk2 lt2 accent1 accent2 accent3 accent4 accent5 accent6 hlink folHlink extLst'),
  'a:fontScheme': a('majorFont minorFont extLst'),
  'a:majorFont': a('latin ea cs font* extLst'),
  'a:minorFont': a('latin ea cs font* extLst'),
  'a:fmtScheme': a('fillStyleLst lnStyleLst effectStyleLst bgFillStyleLst'),
  'p:txStyles': p('titleStyle bodyStyle otherStyle extLst'),
  'p:timing': p('tnLst bldLst extLst'),
  'p:cTn': p('stCondLst endCondLst endSync iterate childTnLst subTnLst'),
  'p:seq': p('cTn prevCondLst nextCondLst'),
  'p:par': p('cTn'),
  'p:set': p('cBhvr to'),
  'p:anim': p('cBhvr tavLst'),
  'p:animEffect': p('cBhvr progress'),
  'p:cmd': p('cBhvr'),
  'p:cBhvr': p('cTn tgtEl attrNameLst'),
  'p:cMediaNode': p('cTn tgtEl'),
  'p:transition': p('split blinds zoom wipe dissolve strips cover push pull fade sndAc extLst'),
};
// A tree, and a group, hold shapes in any order after their own properties.
const SHAPES = p('sp grpSp graphicFrame cxnSp pic contentPart');
const CHOICES: Record<string, string[]> = {
  'p:spTree': [...p('nvGrpSpPr grpSpPr'), ...SHAPES],
  'p:grpSp': [...p('nvGrpSpPr grpSpPr'), ...SHAPES],
  'a:p': a('pPr r br fld endParaRPr'),
};
delete SEQUENCES['p:spTree'];

const REQUIRED: Record<string, string[]> = {
  'p:presentation': p('notesSz'),
  'p:spTree': p('nvGrpSpPr grpSpPr'),
  'p:txBody': a('bodyPr p'),
  'a:txBody': a('bodyPr p'),
  'a:tc': a('txBody'),
  'p:blipFill': a('blip'),
  'a:fontScheme': a('majorFont minorFont'),
  'p:sldMaster': p('clrMap'),
};

const NUMBER = /^-?\d+$/;
const BOOL = /^[01]$/;
const RUN_VALUES = {
  sz: /^(\d{3,5}|[123]\d{5}|400000)$/,
  b: BOOL,
  i: BOOL,
  u: /^(none|sng|dbl|words|heavy|dotted|dash|wavy)$/,
  strike: /^(noStrike|sngStrike|dblStrike)$/,
  kern: /^\d{1,6}$/,
  cap: /^(none|small|all)$/,
  spc: NUMBER,
  baseline: NUMBER,
};
const VALUES: Record<string, Record<string, RegExp>> = {
  'p:sldSz': { cx: NUMBER, cy: NUMBER },
  'a:off': { x: NUMBER, y: NUMBER },
  'a:ext': { cx: /^\d+$/, cy: /^\d+$/ },
  'a:rPr': RUN_VALUES,
  'a:endParaRPr': RUN_VALUES,
  'a:defRPr': RUN_VALUES,
  'a:pPr': { marL: /^\d+$/, marR: /^\d+$/, indent: NUMBER, lvl: /^[0-8]$/, algn: /^(l|ctr|r|just|justLow|dist|thaiDist)$/ },
  'a:spcPts': { val: /^(\d{1,5}|1[0-4]\d{4}|15[0-7]\d{3}|158[0-3]\d\d|158400)$/ },
  'a:buAutoNum': { type: /^(arabicPlain|(arabic|alphaLc|alphaUc|romanLc|romanUc)(Period|ParenR|ParenBoth))$/, startAt: /^[1-9]\d{0,4}$/ },
  'a:tab': { pos: NUMBER, algn: /^(l|ctr|r|dec)$/ },
  'a:bodyPr': { anchor: /^(t|ctr|b|just|dist)$/, numCol: /^([1-9]|1[0-6])$/, spcCol: /^\d+$/, wrap: /^(none|square)$/ },
  'p:ph': { type: /^(title|body|pic|sldImg|sldNum|ctrTitle|subTitle|dt|ftr|obj)$/, idx: /^\d+$/ },
  'p:transition': { spd: /^(slow|med|fast)$/, advTm: /^\d+$/ },
  'p:push': { dir: /^[lurd]$/ },
  'p:wipe': { dir: /^[lurd]$/ },
  'p:cover': { dir: /^(l|u|r|d|lu|ru|ld|rd)$/ },
  'p:pull': { dir: /^(l|u|r|d|lu|ru|ld|rd)$/ },
  'p:strips': { dir: /^(lu|ru|ld|rd)$/ },
  'p:split': { orient: /^(horz|vert)$/, dir: /^(in|out)$/ },
  'p:blinds': { dir: /^(horz|vert)$/ },
  'p:zoom': { dir: /^(in|out)$/ },
  'a:gridCol': { w: /^\d+$/ },
  'a:tr': { h: /^\d+$/ },
  'a:tc': { rowSpan: /^[2-9]\d*|1\d+$/, gridSpan: /^[2-9]\d*|1\d+$/, hMerge: BOOL, vMerge: BOOL },
  'a:fld': { id: /^\{[0-9A-F]{8}(-[0-9A-F]{4}){3}-[0-9A-F]{12}\}$/ },
};

const RULES: Rules = {
  folder: 'ppt/',
  sequences: SEQUENCES,
  choices: CHOICES,
  first: new Set(['a:pPr', 'p:nvGrpSpPr']),
  required: REQUIRED,
  values: VALUES,
  parts: {
    officeDocument: 'presentation.main|template.main',
    slide: 'slide',
    slideLayout: 'slideLayout',
    slideMaster: 'slideMaster',
    notesSlide: 'notesSlide',
    notesMaster: 'notesMaster',
    theme: 'theme',
    presProps: 'presProps',
    tableStyles: 'tableStyles',
  },
  more: faultsOfElement,
};

function faultsOfElement(e: Element, say: (what: string) => void): void {
  if (
    e.name === 'a:p' &&
    e.children.findIndex((c) => c.name === 'a:endParaRPr') < e.children.length - 1 &&
    e.children.some((c) => c.name === 'a:endParaRPr')
  )
    say('its end is not at the end');
  if (e.name === 'a:tbl') {
    const columns = e.children.find((c) => c.name === 'a:tblGrid')?.children.length;
    for (const tr of e.children.filter((c) => c.name === 'a:tr'))
      if (tr.children.filter((c) => c.name === 'a:tc').length !== columns) say('a row has not one cell for each column');
    checkMerges(e, say);
  }
}

/** What a cell covers says so (21.1.3.16), and nothing else does. */
function checkMerges(tbl: Element, say: (what: string) => void): void {
  const rows = tbl.children.filter((c) => c.name === 'a:tr').map((tr) => tr.children.filter((c) => c.name === 'a:tc'));
  const covered = new Map<Element, string>();
  rows.forEach((row, r) =>
    row.forEach((tc, c) => {
      const [down, across] = [Number(tc.attributes['rowSpan'] ?? 1), Number(tc.attributes['gridSpan'] ?? 1)];
      for (let y = 0; y < down; y++)
        for (let x = 0; x < across; x++) {
          const cell = rows[r + y]?.[c + x];
          if (!cell) say('a cell reaches beyond its table');
          else if (x || y) covered.set(cell, `${x > 0 ? 'h' : ''}${y > 0 ? 'v' : ''}`);
        }
    }),
  );
  for (const row of rows)
    for (const tc of row) {
      const says = `${tc.attributes['hMerge'] === '1' ? 'h' : ''}${tc.attributes['vMerge'] === '1' ? 'v' : ''}`;
      if ((covered.get(tc) ?? '') !== says) say(`a cell is covered ${covered.get(tc) ?? 'by none'} and says ${says || 'nothing'}`);
    }
}

/** All that is wrong with a deck of slides by these rules. */
export function faultsOfPptx(bytes: Uint8Array): string[] {
  const { xml, faults } = openChecked(bytes, RULES);
  const of = (path: string): Element[] => (xml.has(path) ? [...elements(xml.get(path)!)] : []);
  const once = (list: string[], what: string): void => {
    const seen = new Set<string>();
    for (const id of list) {
      if (seen.has(id)) faults.push(`${what} ${id} stands twice`);
      seen.add(id);
    }
  };
  const values = (list: Element[], name: string, key: string): string[] =>
    list.filter((e) => e.name === name).map((e) => e.attributes[key]!);
  const presentation = of('ppt/presentation.xml');
  const slides = values(presentation, 'p:sldId', 'id');
  once(slides, 'slide');
  for (const id of slides) if (Number(id) < 256 || Number(id) >= 2_147_483_648) faults.push(`slide ${id} has a number out of bounds`);
  // Masters and layouts share their numbers (19.7.2, 19.7.3).
  const masters = [...xml.keys()].filter((path) => /^ppt\/slideMasters\/[^/]+\.xml$/.test(path));
  const numbers = [...values(presentation, 'p:sldMasterId', 'id'), ...masters.flatMap((m) => values(of(m), 'p:sldLayoutId', 'id'))];
  once(numbers, 'master or layout');
  for (const id of numbers) if (Number(id) < 2_147_483_648) faults.push(`layout ${id} has a number out of bounds`);
  const size = presentation.find((e) => e.name === 'p:sldSz')!.attributes;
  for (const side of ['cx', 'cy'])
    if (Number(size[side]) < 914_400 || Number(size[side]) > 51_206_400) faults.push(`slides are ${size[side]} EMU`);
  for (const [path] of xml) {
    if (!/^ppt\/(slides|slideLayouts|slideMasters|notesSlides)\/[^/]+\.xml$/.test(path)) continue;
    const all = of(path);
    const ids = values(all, 'p:cNvPr', 'id');
    once(ids, `${path}: shape`);
    once(values(all, 'p:cTn', 'id'), `${path}: time`);
    for (const target of values(all, 'p:spTgt', 'spid')) if (!ids.includes(target)) faults.push(`${path}: shape ${target} is not there`);
    once(
      all.filter((e) => e.name === 'p:ph').map((e) => `${e.attributes['type'] ?? 'obj'} ${e.attributes['idx'] ?? ''}`),
      `${path}: place`,
    );
    const related = relationsOf(xml, path);
    const count = (kind: string): number => related.filter((t) => t === kind).length;
    if (/^ppt\/slides\//.test(path) && count('slideLayout') !== 1) faults.push(`${path}: has ${count('slideLayout')} layouts`);
    if (/^ppt\/slideLayouts\//.test(path) && count('slideMaster') !== 1) faults.push(`${path}: has ${count('slideMaster')} masters`);
    if (/^ppt\/slideMasters\//.test(path) && (count('theme') !== 1 || count('slideLayout') < 1))
      faults.push(`${path}: lacks a theme or layouts`);
    if (/^ppt\/notesSlides\//.test(path) && (count('notesMaster') !== 1 || count('slide') !== 1))
      faults.push(`${path}: belongs to nothing`);
  }
  const styles = values(of('ppt/tableStyles.xml'), 'a:tblStyle', 'styleId');
  once(styles, 'table style');
  return faults;
}

const relationsOf = (xml: ReadonlyMap<string, Element>, path: string): string[] => {
  const at = path.lastIndexOf('/') + 1;
  const rels = xml.get(`${path.slice(0, at)}_rels/${path.slice(at)}.rels`);
  return rels?.children.map((r) => r.attributes['Type']!.split('/').pop()!) ?? [];
};
