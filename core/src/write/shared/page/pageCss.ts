import type { LookSheet } from '../../../paint/html/styleSheet.ts';

/** A typeface of a result’s own, for its style sheet. */
export const fontFaceRule = (family: string, path: string): string =>
  `@font-face{font-family:"${family}";src:url("${path}") format("woff2");font-display:block}`;

/** What every page of placed items needs of a style sheet, with the looks of its text. */
export const pageCss = (
  looks: LookSheet,
): string => `.page{position:relative;overflow:hidden;background:#fff;isolation:isolate;font-kerning:normal;font-synthesis:none;text-rendering:geometricPrecision}
.i,.g,.o,.l,.c img{position:absolute;transform-origin:0 0}
.g{left:0;top:0;width:0;height:0}
.o{overflow:visible;pointer-events:none}
.c{position:absolute;inset:0;overflow:hidden}
.c img{display:block;max-width:none}
.l{white-space:pre}
.l *{line-height:0}
.e{font-kerning:none}
h1,h2,h3,h4,h5,h6,p,ul,li,blockquote,aside,div,table,th,td{margin:0;padding:0;font-size:inherit;font-weight:inherit;font-style:inherit}
table{border-collapse:collapse}
th{text-align:inherit}
h1,h2,h3,h4,h5,h6,strong,em,cite,dfn{font-weight:normal;font-style:normal}
ul{list-style:none}
a{color:inherit;text-decoration-thickness:from-font}
a:focus-visible,.page:focus-visible{outline:3px solid #1E5B4B;outline-offset:2px}
${looks.css()}
`;
