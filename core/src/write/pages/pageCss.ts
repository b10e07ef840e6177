import type { LookSheet } from '../../paint/html/styleSheet.ts';

/** A typeface of a result’s own, for its style sheet. */
export const fontFaceRule = (family: string, path: string): string =>
  `@font-face{font-family:"${family}";src:url("${path}") format("woff2");font-display:block}`;

/** What moves and reacts. Without a program cards lie side by side, veils are lifted, and every field is there. */
const MOTION_CSS = `@property --p{syntax:"<length-percentage>";inherits:false;initial-value:0%}
.w{position:absolute;overflow:auto hidden;overscroll-behavior:contain}
.w.alive{overflow:hidden;touch-action:pan-y}
.card{position:absolute;top:0;width:100%;height:100%}
.alive>.card{left:0 !important}
.card.off,.unseen{visibility:hidden}
.b,.ctl{appearance:none;border:0;padding:0;margin:0;background:none;font:inherit;color:inherit;cursor:pointer}
.ctl{position:absolute;z-index:9999;min-width:28px;height:28px;border-radius:14px;background:#fffffff0;color:#17211e;font:600 14px/28px sans-serif;box-shadow:0 0 0 1px #17211e55}
.ctl.previous{left:6px;top:calc(50% - 14px)}
.ctl.next{right:6px;top:calc(50% - 14px)}
.ctl.pause{right:6px;top:6px;font-size:10px}
.ctl.hold{position:fixed;right:12px;bottom:12px;font-size:10px}
.ctl.lift{left:50%;bottom:4px;padding:0 10px;font-size:12px;white-space:nowrap;transform:translateX(-50%)}
.dots{position:absolute;z-index:9999;left:0;right:0;bottom:2px;display:flex;justify-content:center}
.dots .ctl{position:relative;min-width:24px;width:24px;height:24px;background:none;box-shadow:none}
.dots .ctl::after{content:"";position:absolute;inset:8px;border-radius:50%;background:#fff9;box-shadow:0 0 0 1.5px #17211e}
.dots .ctl[aria-current]::after{inset:6px;background:#fff}
.thumbs .ctl{width:40px;height:28px;margin:0 2px;border-radius:3px;background-size:cover;background-position:50%;box-shadow:0 0 0 1px #17211e}
.thumbs .ctl::after{content:none}
.thumbs .ctl[aria-current]{box-shadow:0 0 0 3px #17211e}
.cloth{position:absolute;left:0;top:0;width:100%;height:100%;touch-action:none}
.f{position:absolute;left:0;top:0;box-sizing:border-box;width:100%;height:100%;margin:0;appearance:none;border:0;border-radius:0;padding:0 3px;background:none;color:#17211e;font:14px/1.3 sans-serif}
textarea.f{resize:none;padding:3px}
select.f,input.f[type=date]{appearance:auto;background:#fff8}
button.f{background:#fffffff0;box-shadow:inset 0 0 0 1px #17211e;cursor:pointer}
.f:checked::before{content:"";position:absolute;inset:14%;background:currentColor;clip-path:polygon(8% 52%,22% 38%,40% 58%,80% 10%,94% 24%,41% 88%)}
.f[type=radio]:checked::before{clip-path:circle(32%)}
.looks:checked::before{content:none}
.c video,.c audio,.c iframe{position:absolute;left:0;bottom:0;width:100%;border:0}
.c video,.c iframe{height:100%}
.c video{object-fit:cover}
.script{position:absolute;left:0;top:0;max-width:100%;z-index:1;padding:0 6px;background:#fffffff0;color:#17211e;font:13px/1.5 sans-serif}
.script.below{top:100%}
@media (hover:hover){.script:not([open]):not(:focus-within){opacity:0}.i:hover>.script{opacity:1}}
.said{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap}
.w:focus-visible,.i:focus-visible,.ctl:focus-visible,.f:focus-visible{outline:3px solid #1E5B4B;outline-offset:2px}
@media print{.ctl,.dots,.cloth{display:none}}`;

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
.l *,.fl *{line-height:0}
.col{position:absolute}
.e{font-kerning:none}
h1,h2,h3,h4,h5,h6,p,ul,li,blockquote,aside,div,table,th,td{margin:0;padding:0;font-size:inherit;font-weight:inherit;font-style:inherit}
table{border-collapse:collapse}
th{text-align:inherit}
h1,h2,h3,h4,h5,h6,strong,em,cite,dfn{font-weight:normal;font-style:normal}
ul{list-style:none}
${MOTION_CSS}
a{color:inherit;text-decoration-thickness:from-font}
a:focus-visible,.page:focus-visible{outline:3px solid #1E5B4B;outline-offset:2px}
${looks.css()}
`;
