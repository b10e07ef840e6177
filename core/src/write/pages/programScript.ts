import type { Program } from '../../../../player/src/program.ts';

/** The player's program as a script of data; no text in it can end the script or be read as markup, in HTML or XML. */
export const programScript = (program: Program): string =>
  `<script type="application/json" id="program">${JSON.stringify(program).replace(/[<>&]/g, (c) => `\\u00${c.charCodeAt(0).toString(16)}`)}</script>`;
