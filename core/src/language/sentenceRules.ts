import { readSrx } from './srx.ts';
import type { SentenceRules } from './srx.ts';

/** A rule that keeps what ends with one of these in one sentence. */
const keeps = (words: string): string =>
  `<rule break="no"><beforebreak>(?&lt;![\\p{L}\\p{N}])(?:${words})\\.</beforebreak><afterbreak>\\s</afterbreak></rule>`;

const language = (name: string, ...rules: string[]): string => `<languagerule languagerulename="${name}">${rules.join('')}</languagerule>`;

/**
 * The rules for sentences that are there from the beginning, as a file of SRX 2.0: abbreviations that are common in handbooks
 * of each language (common practice, from memory), initials, numbers and days, then full stops.
 */
export const SHIPPED_SRX = `<?xml version="1.0" encoding="UTF-8"?>
<srx xmlns="http://www.lisa.org/srx20" version="2.0">
<header segmentsubflows="yes" cascade="yes"/>
<body><languagerules>${[
  language(
    'English',
    keeps(
      'Mr|Mrs|Ms|Dr|Prof|St|Mt|Jr|Sr|Rev|Gen|Col|Capt|Lt|Sgt|Hon|vs|etc|cf|al|approx|ca|No|Nos|Vol|pp?|Fig|Figs|Ch|Sec|Eq|ed|eds|Ltd|Inc|Co|Corp|e\\.\\s?g|i\\.\\s?e|a\\.\\s?m|p\\.\\s?m|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec',
    ),
  ),
  language(
    'German',
    keeps(
      'z\\.\\s?B|d\\.\\s?h|u\\.\\s?a|o\\.\\s?ä|i\\.\\s?d\\.\\s?R|s\\.\\s?[ou]|v\\.\\s?Chr|n\\.\\s?Chr|usw|bzw|vgl|ca|evtl|ggf|inkl|exkl|max|min|Nr|Bd|Abb|Kap|Tab|Aufl|Hrsg|Dr|Prof|Hr|Fr|St|Str|Jh|Jhd|Mio|Mrd|Tel|sog|Jan|Feb|Mär|Apr|Aug|Sept?|Okt|Nov|Dez',
    ),
    // A number with a stop is an ordinal: “am 6. März”.
    '<rule break="no"><beforebreak>(?&lt;![\\p{L}\\p{N}])\\d{1,3}\\.</beforebreak><afterbreak>\\s</afterbreak></rule>',
  ),
  language(
    'French',
    keeps(
      'M|MM|Mme|Mmes|Mlle|Dr|Pr|St|Ste|etc|cf|env|p|pp|art|chap|fig|vol|éd|av|apr|J\\.-C|p\\.\\s?ex|c\\.-à-d|janv|févr|avr|juil|sept|oct|nov|déc',
    ),
  ),
  language(
    'Spanish',
    keeps('Sr|Sra|Srta|Dr|Dra|D|Dña|Ud|Uds|etc|pág|págs|art|cap|fig|núm|vol|aprox|p\\.\\s?ej|EE\\.\\s?UU|a\\.\\s?C|d\\.\\s?C'),
  ),
  language('Italian', keeps('Sig|Sigg|Dott|Prof|Ing|Avv|ecc|pag|pagg|art|cap|fig|vol|ca|cfr|p\\.\\s?es|a\\.\\s?C|d\\.\\s?C')),
  language(
    'Full-width',
    '<rule break="yes"><beforebreak>[。！？｡]+[」』）】”’]*</beforebreak><afterbreak>[^」』）】”’。！？｡\\s]</afterbreak></rule>',
  ),
  language(
    'All',
    // Initials of names, abbreviations of several letters, and stops inside one sentence.
    '<rule break="no"><beforebreak>(?&lt;![\\p{L}\\p{N}])\\p{L}\\.</beforebreak><afterbreak>\\s\\p{L}\\.</afterbreak></rule>',
    '<rule break="no"><beforebreak>(?&lt;![\\p{L}\\p{N}])\\p{Lu}\\.</beforebreak><afterbreak>\\s</afterbreak></rule>',
    '<rule break="no"><beforebreak>[.?!…]+[\\p{Pe}\\p{Pf}"\']*</beforebreak><afterbreak>\\s+\\p{Ll}</afterbreak></rule>',
    '<rule break="yes"><beforebreak>[.?!…]+[\\p{Pe}\\p{Pf}"\'“”]*</beforebreak><afterbreak>\\s</afterbreak></rule>',
    '<rule break="yes"><beforebreak>[。！？｡]+[」』）】”’]*</beforebreak><afterbreak>\\s</afterbreak></rule>',
  ),
].join('')}</languagerules>
<maprules>
<languagemap languagepattern="en.*" languagerulename="English"/>
<languagemap languagepattern="de.*" languagerulename="German"/>
<languagemap languagepattern="fr.*" languagerulename="French"/>
<languagemap languagepattern="es.*" languagerulename="Spanish"/>
<languagemap languagepattern="it.*" languagerulename="Italian"/>
<languagemap languagepattern="(ja|zh).*" languagerulename="Full-width"/>
<languagemap languagepattern=".*" languagerulename="All"/>
</maprules></body></srx>`;

let shipped: SentenceRules | undefined;
export const shippedRules = (): SentenceRules => (shipped ??= readSrx(SHIPPED_SRX));
