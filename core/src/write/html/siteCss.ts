import type { HtmlSettings } from './settings.ts';

/** Room around pages that fit the window, in px. */
const MARGIN = 16;

/** Forms in which one page, or one spread, is in sight at a time. */
export const isOneAtATime = (form: HtmlSettings['form']): boolean => form === 'slides' || form === 'slidesDown' || form === 'spreads';

/** Windows in which the pages of a spread stand below one another. */
const oneByOne = ({ sideBySide }: HtmlSettings): string => (sideBySide > 0 ? `(width<${sideBySide}px)` : '(orientation:portrait)');

/** How pages lie, how large they are, and what is behind and around them. */
export function siteCss(s: HtmlSettings, ground: string | undefined): string {
  return [
    `html{background:${s.ground};-webkit-text-size-adjust:100%;text-size-adjust:100%;--bar:0px}`,
    ground === undefined ? '' : groundRule(ground, s),
    'body{margin:0}',
    FORMS[s.form](s),
    zoomRule(s),
    s.joined && s.form !== 'spreads' && !isOneAtATime(s.form) ? '.slot{display:flex;justify-content:center}.slot>.page{margin:0}' : '',
    !isOneAtATime(s.form) && (s.fit === 'page' || s.fit === 'between') ? 'main{padding-block:16px}' : '',
    s.shadow ? '.page{box-shadow:0 2px 14px #0003}' : '',
    s.bar.length ? barRules(s.barAt) : '',
    s.form === 'site' || s.form === 'sections' ? AROUND : '',
    s.progress ? PROGRESS : '',
    s.loading ? LOADING : '',
    s.measureAt ? MEASURING : '',
    s.measureAt && isOneAtATime(s.form) ? MEASURING_OVER : '',
    'main:focus-visible{outline:3px solid #1E5B4B;outline-offset:-3px}',
    PLAIN,
    PRINT,
  ]
    .filter(Boolean)
    .join('\n');
}

function groundRule(picture: string, { groundFit }: HtmlSettings): string {
  const how = { cover: 'background-size:cover', tile: 'background-repeat:repeat', middle: 'background-repeat:no-repeat' }[groundFit];
  return `html{background-image:url("${picture}");background-position:50%;background-attachment:fixed;${how}}`;
}

const stacked = (gap: number): string => `main,form{display:flow-root}
.slot{margin:0 auto ${gap}px}
.slot:last-child{margin-bottom:0}
.page{margin:0 auto;content-visibility:auto;contain-intrinsic-size:auto var(--w) auto var(--h)}`;

const oneAtATime = (axis: 'x' | 'y'): string => `html,body{box-sizing:border-box;height:100%;overflow:hidden}
main{display:flex;${axis === 'y' ? 'flex-direction:column;' : ''}height:calc(100dvh - var(--bar));overflow:${axis === 'x' ? 'auto hidden' : 'hidden auto'};scroll-snap-type:${axis} mandatory;overscroll-behavior:contain;scrollbar-width:none}
main::-webkit-scrollbar{display:none}
main>form{display:contents}
.slot{flex:0 0 100%;box-sizing:border-box;height:calc(100dvh - var(--bar));overflow:auto;display:grid;grid-auto-flow:column;place-content:safe center;scroll-snap-align:start;scroll-snap-stop:always;content-visibility:auto}`;

const FORMS: Record<HtmlSettings['form'], (s: HtmlSettings) => string> = {
  stacked: (s) => stacked(s.gap),
  continuous: () => stacked(0),
  site: () => stacked(0),
  sections: (s) => stacked(s.gap),
  slides: () => oneAtATime('x'),
  slidesDown: () => oneAtATime('y'),
  spreads: (s) => `${oneAtATime('x')}
@media ${oneByOne(s)}{.slot{grid-auto-flow:row}}
.leaf{position:fixed;z-index:10000;overflow:hidden;transform-style:preserve-3d;backface-visibility:hidden;pointer-events:none}
.leaf>.page{position:absolute;left:0;top:0;margin:0}`,
  banner: () => `html{overflow:hidden}
main{display:flex;width:var(--w);height:var(--h);overflow:auto hidden;scroll-snap-type:x mandatory;scrollbar-width:none}
main::-webkit-scrollbar{display:none}
main>form{display:contents}
.slot{flex:none;scroll-snap-align:start}`,
};

/**
 * Pages fitted to the window, by the browser alone: the angle whose sides are the room and the page has their ratio as its
 * tangent. What readers ask for with the bar's buttons comes on top.
 */
function zoomRule(s: HtmlSettings): string {
  if (s.form === 'banner') return '';
  const more = 'var(--more,1)';
  const across = `tan(atan2(100vw - ${2 * MARGIN}px,var(--w)))`;
  const down = `tan(atan2(100dvh - var(--bar) - ${2 * MARGIN}px,var(--h)))`;
  const whole = `min(${across},${down})`;
  const pair = `min(tan(atan2(100vw - ${2 * MARGIN}px,var(--w1))),1.5)`;
  const fits = {
    size: '1',
    width: across,
    page: whole,
    between: `clamp(${s.least / 100},${whole},${s.most / 100})`,
  }[s.fit];
  const rules = [s.bar.includes('enlarge') || s.fit !== 'size' ? `.page{zoom:calc(${fits}*${more})}` : ''];
  // Held upright, the pages of a spread stand below one another, each as wide as the window.
  if (s.form === 'spreads' && s.fit !== 'size') rules.push(`@media ${oneByOne(s)}{.page{zoom:calc(${pair}*${more})}}`);
  return rules.filter(Boolean).join('\n');
}

const barRules = (at: HtmlSettings['barAt']): string => `html{--bar:44px}
body{padding-${at}:var(--bar)}
.bar{position:fixed;z-index:10001;left:0;right:0;${at}:0;box-sizing:border-box;height:var(--bar);display:flex;align-items:center;gap:4px;padding:0 10px;background:#fffffff2;color:#17211e;font:15px/1.2 system-ui,sans-serif;box-shadow:0 0 0 1px #17211e22}
.bar button,.bar summary{box-sizing:border-box;min-width:36px;height:36px;padding:0 10px;border:0;border-radius:18px;background:none;color:inherit;font:inherit;line-height:36px;cursor:pointer;white-space:nowrap}
.bar summary{list-style:none}
[data-do=back],[data-do=next],[data-do=smaller],[data-do=larger]{font-size:22px}
.bar button:hover,.bar summary:hover{background:#17211e14}
.bar button[aria-pressed=false]{text-decoration:line-through}
.bar :focus-visible{outline:3px solid #1E5B4B;outline-offset:1px}
.bar input[type=range]{flex:1 1 80px;min-width:60px;accent-color:#1E5B4B}
.bar input[type=search]{box-sizing:border-box;width:11em;max-width:34vw;height:32px;padding:0 10px;border:1px solid #5b6a62;border-radius:16px;background:#fff;color:inherit;font:inherit}
.bar output{padding:0 6px;white-space:nowrap;font-variant-numeric:tabular-nums}
.overview ol{display:grid;grid-template-columns:repeat(auto-fill,minmax(110px,1fr));gap:14px}
.overview img{display:block;max-width:100%;height:auto;box-shadow:0 0 0 1px #17211e33}
.overview.contents nav{width:34em}
.contents nav,.found{position:fixed;${at}:var(--bar);max-height:calc(100dvh - var(--bar) - 24px);overflow:auto;box-sizing:border-box;width:22em;max-width:100vw;padding:10px 16px;background:#fff;box-shadow:0 2px 14px #0003}
.contents nav{left:0}
.found{right:0}
.contents ol,.found ol{list-style:none;margin:0;padding:0}
.contents a,.found a{display:block;padding:6px 0;color:inherit;text-decoration:none}
.contents li{padding-left:calc(var(--in,0)*16px)}
.contents a:hover,.found a:hover{text-decoration:underline}
.found p{margin:0 0 4px}
.found b{font-weight:600}
::highlight(found){background:#ffe08a;color:#17211e}
html:not(.played) .needs{display:none}
html{scroll-padding-${at}:var(--bar)}
@media (max-width:600px){.bar{overflow-x:auto;padding:0 4px}.bar output{display:none}}`;

const AROUND = `.around{display:flex;justify-content:space-between;gap:24px;padding:18px 24px;font:16px/1.4 system-ui,sans-serif}
.around a{color:#17211e;background:#fffffff2;padding:8px 16px;border-radius:20px;text-decoration:none}
.around a:hover{text-decoration:underline}`;

const PROGRESS = `.progress{position:fixed;z-index:10002;left:0;top:0;height:3px;width:100%;background:#1E5B4B;transform:scaleX(var(--read,0));transform-origin:0 0}
html:not(.played) .progress{display:none}`;

const MEASURING = `.measuring{display:flex;flex-wrap:wrap;align-items:center;justify-content:center;gap:6px 14px;padding:12px 20px;background:#fff;color:#17211e;font:15px/1.4 system-ui,sans-serif}
.measuring p{margin:0;max-width:60ch}
.measuring button{min-width:44px;height:36px;padding:0 16px;border:1px solid #1E5B4B;border-radius:18px;background:#fff;color:#17211e;font:inherit;cursor:pointer}
.measuring.asks{position:fixed;z-index:10004;left:0;right:0;bottom:0;box-shadow:0 -2px 14px #0003}
.measuring :focus-visible{outline:3px solid #1E5B4B;outline-offset:1px}`;

/** Where nothing is below the pages, what was answered stands small over them. */
const MEASURING_OVER = `.measuring:not(.asks){position:fixed;z-index:10000;left:8px;bottom:8px;padding:0;background:none}
.measuring:not(.asks) p{display:none}
.measuring:not(.asks) button{height:28px;padding:0 12px;font-size:13px;opacity:.85}`;

const LOADING = `.loading{position:fixed;z-index:10003;left:50%;bottom:20px;transform:translateX(-50%);margin:0;padding:8px 18px;border-radius:20px;background:#17211ee6;color:#fff;font:15px/1.4 system-ui,sans-serif}
.loading::after{content:"";position:absolute;left:18px;right:18px;bottom:4px;height:2px;background:#fff;transform-origin:0 0;animation:loads 1.6s ease-in-out infinite}
@keyframes loads{0%{transform:scaleX(0)}60%,100%{transform:scaleX(1)}}
@media (prefers-reduced-motion:reduce){.loading::after{animation:none}}
html:not(.played) .loading,html.loaded .loading{display:none}`;

/** Asked for plainly, pages lie below one another as they were designed: to compare them, or to print them. */
const PLAIN = `.plain .bar,.plain .around,.plain .progress,.plain .loading,.plain .measuring{display:none}
.plain,.plain body{--bar:0px;height:auto;overflow:visible;padding:0}
.plain main{display:block;padding:0;width:auto;height:auto;overflow:visible}
.plain .slot{content-visibility:visible;display:block;height:auto;overflow:visible;margin:0}
.plain .page{content-visibility:visible;zoom:1;margin:0 auto;box-shadow:none}`;

const PRINT = `@media print{html{background:none;--bar:0px}html,body{height:auto;overflow:visible;padding:0}.bar,.around,.progress,.loading,.measuring{display:none}main{display:block;width:auto;height:auto;overflow:visible}.slot{content-visibility:visible;display:block;height:auto;overflow:visible;margin:0}.page{zoom:1;margin:0;break-after:page;box-shadow:none;content-visibility:visible}}`;
