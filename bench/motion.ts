import type { Browser, CDPSession } from '@playwright/test';
import type { Program } from '../player/src/program.ts';
import { pageCss } from '../core/src/write/pages/pageCss.ts';

/** A stroke over all flakes takes this long, in ms; the pointer tells its place as often as a mouse does. */
const STROKE_MS = 4000;
const MOVES_PER_SECOND = 125;
const [COLUMNS, ROWS, PITCH, SIZE] = [20, 20, 34, 36];

interface TraceEvent {
  name: string;
  ph: string;
  ts: number;
  args: { chain_reporter?: { state?: string }; data?: { state?: string } };
}

/** How a page with 400 flakes moves at a quarter of the speed, by the browser's own trace. */
export interface MotionTimes {
  flakes: number;
  lifted: number;
  framesPerSecond: number;
  /** Frames that were drawn too late, of all that something changed in. */
  dropped: number;
  longestTaskMs: number;
}

/** A page with one veil, as the web edition has it. */
const page = (player: string, isCovered: boolean): string => {
  const program: Partial<Program> = {
    version: 2,
    pages: ['p'],
    veils: {
      v: {
        size: SIZE,
        pitch: PITCH,
        rows: Array.from({ length: ROWS }, () => Array.from({ length: COLUMNS }, (_, c) => c)),
        clip: `M0 0H${COLUMNS * PITCH + 2}V${ROWS * PITCH + 2}H0Z`,
        fill: '#1e5b4b',
        lift: 'fade',
        rest: 1,
        action: 'Show it',
      },
    },
  };
  if (!isCovered) program.veils = {};
  const side = `width:${COLUMNS * PITCH + 2}px;height:${ROWS * PITCH + 2}px`;
  return `<!doctype html><meta charset="utf-8"><style>body{margin:0}${pageCss({ css: () => '' } as never)}</style><main><section id="p" class="page" style="${side}"><div class="i" data-item="v" style="left:0;top:0;${side}"></div></section></main><script type="application/json" id="program">${JSON.stringify(program)}</script><script>${player}</script>`;
};

/** Strokes over all flakes in rows, there and back; then over the same page without any, which is all that this machine can show. */
export async function motionTimes(browser: Browser, player: string): Promise<MotionTimes & { bareFramesPerSecond: number; ratio: number }> {
  const bare = await stroked(browser, player, false);
  const veiled = await stroked(browser, player, true);
  const again = await stroked(browser, player, false);
  const bareFramesPerSecond = (bare.framesPerSecond + again.framesPerSecond) / 2;
  return { ...veiled, bareFramesPerSecond, ratio: veiled.framesPerSecond / bareFramesPerSecond };
}

async function stroked(browser: Browser, player: string, isCovered: boolean): Promise<MotionTimes> {
  const tab = await browser.newPage({ viewport: { width: 800, height: 800 } });
  try {
    await tab.setContent(page(player, isCovered));
    if (isCovered) await tab.locator('.cloth').waitFor();
    const left = async (): Promise<number> => (isCovered ? Number(await tab.locator('.cloth').getAttribute('data-left')) : 0);
    const flakes = await left();
    const session = await tab.context().newCDPSession(tab);
    await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    const events: TraceEvent[] = [];
    session.on('Tracing.dataCollected', ({ value }) => void events.push(...(value as unknown as TraceEvent[])));
    const ended = new Promise<void>((resolve) => session.once('Tracing.tracingComplete', () => resolve()));
    await session.send('Tracing.start', {
      transferMode: 'ReportEvents',
      traceConfig: { includedCategories: ['devtools.timeline', 'disabled-by-default-devtools.timeline.frame', 'devtools.timeline.frame'] },
    });
    const frames = tab.evaluate(
      (ms) =>
        new Promise<number>((resolve) => {
          let count = 0;
          const begin = performance.now();
          const tick = (): void => {
            count++;
            if (performance.now() - begin < ms) requestAnimationFrame(tick);
            else resolve((count * 1000) / (performance.now() - begin));
          };
          requestAnimationFrame(tick);
        }),
      STROKE_MS,
    );
    await stroke(session);
    const framesPerSecond = await frames;
    await session.send('Tracing.end');
    await ended;
    const lifted = flakes - (await left());
    const drawn = events.filter((e) => e.name === 'DrawFrame').length;
    const lost = events.filter((e) => e.name === 'DroppedFrame').length;
    const tasks = events.filter((e) => e.name === 'RunTask').map((e) => ((e as unknown as { dur?: number }).dur ?? 0) / 1000);
    return { flakes, lifted, framesPerSecond, dropped: lost / Math.max(1, drawn + lost), longestTaskMs: Math.max(0, ...tasks) };
  } finally {
    await tab.close();
  }
}

async function stroke(session: CDPSession): Promise<void> {
  const moves = Math.round((STROKE_MS / 1000) * MOVES_PER_SECOND);
  const began = performance.now();
  for (let i = 0; i <= moves; i++) {
    const along = (i / moves) * ROWS;
    const row = Math.min(ROWS - 1, Math.floor(along));
    const across = row % 2 ? 1 - (along - row) : along - row;
    await session.send('Input.dispatchMouseEvent', {
      type: 'mouseMoved',
      x: 2 + across * (COLUMNS * PITCH - 4),
      y: row * PITCH + PITCH / 2,
    });
    const wait = began + (i * STROKE_MS) / moves - performance.now();
    if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
  }
}
