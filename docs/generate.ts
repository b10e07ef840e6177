import { readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { Edition, FORMAT_VERSION, Folio, Head, Recipe, Spread, Story } from '@elastic-folio/core';
import { WRITERS } from '@elastic-folio/core/write';
import { ConvertResult, CorrectionsResult, InspectResult, SamplesResult } from '@elastic-folio/cli';

interface Json {
  type?: string;
  properties?: Record<string, Json>;
  required?: string[];
  items?: Json;
  additionalProperties?: Json | boolean;
  enum?: unknown[];
  const?: unknown;
  anyOf?: Json[];
  oneOf?: Json[];
  prefixItems?: Json[];
  pattern?: string;
  default?: unknown;
  description?: string;
  title?: string;
  help?: string;
  unit?: string;
  minimum?: number;
  maximum?: number;
}

const schemaOf = (schema: z.ZodType): Json => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Json;

/** A type in a few words, two levels deep. */
function words(j: Json, depth = 0): string {
  if (j.const !== undefined) return `\`${JSON.stringify(j.const)}\``;
  if (j.enum) return j.enum.map((v) => `\`${String(v)}\``).join(', ');
  const choices = j.anyOf ?? j.oneOf;
  if (choices) return [...new Set(choices.map((c) => kindOf(c) ?? words(c, depth)))].join(' or ');
  if (j.prefixItems) return `[${j.prefixItems.map((p) => words(p, depth + 1)).join(', ')}]`;
  if (j.type === 'array') return `list of ${j.items ? words(j.items, depth) : 'values'}`;
  if (j.type === 'object' && j.properties) return depth > 0 ? `{ ${Object.keys(j.properties).join(', ')} }` : 'object';
  if (j.type === 'object')
    return `by id: ${typeof j.additionalProperties === 'object' ? words(j.additionalProperties, depth + 1) : 'values'}`;
  return j.type ?? 'any';
}

/** What tells a member of a union apart: its `kind`, `type`, `space`, `do` … */
function kindOf(j: Json): string | null {
  const mark = Object.entries(j.properties ?? {}).find(([, v]) => v.const !== undefined);
  return mark ? `\`${String(mark[1].const)}\`` : null;
}

function table(j: Json): string {
  const rows = Object.entries(j.properties ?? {}).map(([name, p]) => {
    const value = p.default === undefined ? '' : ` (${JSON.stringify(p.default)})`;
    return `| \`${name}\` | ${words(p).replace(/\|/g, '\\|')} | ${j.required?.includes(name) ? 'yes' : `no${value}`} | ${p.description ?? ''} |`;
  });
  return ['| name | value | needed (else) | |', '|---|---|---|---|', ...rows].join('\n');
}

function variants(j: Json): string {
  return (j.oneOf ?? j.anyOf ?? []).map((v) => `#### ${kindOf(v) ?? 'another form'}\n\n${table(v)}`).join('\n\n');
}

const head = schemaOf(Head);
const spread = schemaOf(Spread);
const story = schemaOf(Story);
const item = spread.properties!['items']!.additionalProperties as Json;
const block = story.properties!['blocks']!.additionalProperties as Json;

const format = `# The document format

Made from the Zod schemas in \`core/src/folio\` by \`node scripts/documents.mjs\`; do not edit by hand. The same as JSON Schema: [folio.schema.json](folio.schema.json).

A \`.efolio\` package is a zip archive. Its first entry, stored uncompressed, is \`mimetype\` with \`application/vnd.elastic-folio+zip\`. Then follow:

| entry | what it is |
|---|---|
| \`folio.json\` | the head: metadata, styles, swatches, layers, fonts, master pages, order of spreads and stories, structure |
| \`spreads/<id>.json\` | pages that lie side by side, with their items |
| \`stories/<id>.json\` | a continuous text and the chain of frames that shows it |
| \`editions/<language>.json\` | the document in another language |
| \`recipes/<id>.json\` | the settings of an output |
| \`media/…\`, \`fonts/…\` | pictures, sound, film; fonts that may travel |
| \`origin/…\` | the source's own bytes |

Lengths are points (1 pt = 1/72 in), y points down, matrices are \`[a, b, c, d, e, f]\` as in SVG and PDF. Format version ${FORMAT_VERSION}.

Limits on reading: 2 GiB expanded, 20,000 entries, 200 bytes for each packed byte, 64 MiB for one JSON part, 268 megapixels for a picture. Entries that point outside the archive, encrypted entries and files that are not what the head says are refused.

## folio.json

${table(head)}

## spreads/<id>.json

${table(spread)}

### Items

${variants(item)}

## stories/<id>.json

${table(story)}

### Blocks

${variants(block)}

## editions/<language>.json

${table(schemaOf(Edition))}

## recipes/<id>.json

${table(schemaOf(Recipe))}

A recipe given to the command line is the same without \`id\`. Settings by output:

${WRITERS.map(
  (w) =>
    `### ${w.id}: ${w.label}\n\n| name | value | else | what it does |\n|---|---|---|---|\n${Object.entries(
      (schemaOf(w.settings).properties ?? {}) as Record<string, Json>,
    )
      .map(
        ([name, p]) =>
          `| \`${name}\` | ${p.minimum !== undefined ? `${p.minimum} to ${p.maximum}${p.unit ? ` ${p.unit}` : ''}` : words(p)} | ${JSON.stringify(p.default)} | ${p.help ?? ''} |`,
      )
      .join('\n')}`,
).join('\n\n')}

## What the command line prints with --json

### inspect

${table(schemaOf(InspectResult))}

### convert

${table(schemaOf(ConvertResult))}

Each of \`outputs\`:

${table(schemaOf(ConvertResult).properties!['outputs']!.items!)}

### corrections

${table(schemaOf(CorrectionsResult))}

### samples

${table(schemaOf(SamplesResult))}
`;

const files: [string, string][] = [
  ['docs/format.md', format],
  ['docs/folio.schema.json', JSON.stringify(z.toJSONSchema(Folio, { io: 'input', unrepresentable: 'any', reused: 'ref' }), null, 1) + '\n'],
];
const check = process.argv.includes('--check');
for (const [path, text] of files) {
  let old = '';
  try {
    old = readFileSync(path, 'utf8');
  } catch {
    // It is made now.
  }
  if (old === text) continue;
  if (check) {
    console.error(`${path} is not up to date; run node scripts/documents.mjs`);
    process.exitCode = 1;
  } else writeFileSync(path, text);
}
