import type { Corrections, LibraryFont, MediaFile, Recipe, RoleSet, TextPart, TranslatedUnit, WaitingEdit } from '@elastic-folio/core';
import type {
  BackHome,
  ComingSample,
  FoundMatch,
  GuestAnswer,
  GuestJob,
  JobOnList,
  KeptTerm,
  Letter,
  MemoryEntry,
  NewJob,
  Notice,
  Counted,
  Measures,
  OnPhones,
  PublishedSite,
  Weights,
  EditAnswer,
  FilesOfAnother,
  FontEntry,
  IntakeReport,
  Ledger,
  NewerChoice,
  NewerProposal,
  OpenedDocument,
  OutputKind,
  OutputState,
  Rehearsal,
  Run,
  SampleFile,
  ShelfEntry,
} from '@elastic-folio/core/api';
import type { Lengths, LettersReport, Term } from '@elastic-folio/core/language';
import type { z } from 'zod';
import { API_ROOT } from './root.ts';

/** Something the server could not do, in words for a person. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly advice: string,
  ) {
    super(message);
  }
}

/** Browsers keep 64 KiB on their way after a page is left (Fetch, keepalive). */
const KEPT_ALIVE = 16_000;

async function call<T>(path: string, body?: unknown, method = body === undefined ? 'GET' : 'POST'): Promise<T> {
  let response: Response;
  const text = body === undefined ? undefined : JSON.stringify(body);
  try {
    response = await fetch(`${API_ROOT}${path}`, {
      method,
      ...(text !== undefined && {
        body: text,
        headers: { 'content-type': 'application/json' },
        // What is on its way when the page is left arrives all the same.
        keepalive: text.length < KEPT_ALIVE,
      }),
    });
  } catch {
    throw new ApiProblem(0, 'offline', 'The program does not answer.', 'Start it again; what you did here is kept until then.');
  }
  const data = (await response.json().catch(() => ({}))) as T & { code?: string; message?: string; advice?: string };
  if (!response.ok)
    throw new ApiProblem(response.status, data.code ?? 'failed', data.message ?? 'It did not work.', data.advice ?? 'Try again.');
  return data;
}

const doc = (id: string): string => `/folios/${encodeURIComponent(id)}`;

export const api = {
  shelf: () => call<ShelfEntry[]>('/folios'),
  open: (id: string, actor: string) => call<z.infer<typeof OpenedDocument>>(`${doc(id)}?actor=${encodeURIComponent(actor)}`),
  remove: (id: string) => call<object>(doc(id), undefined, 'DELETE'),
  parts: (id: string, asked: { seq: number; paths: string[] }) => call<{ parts: Record<string, unknown> }>(`${doc(id)}/parts`, asked),
  intake: (id: string) => call<IntakeReport>(`${doc(id)}/intake`),
  fonts: (id: string) => call<FontEntry[]>(`${doc(id)}/fonts`),
  newer: (id: string, token: string, choice: NewerChoice) => call<NewerProposal>(`${doc(id)}/newer/${token}`, choice),
  takeNewer: (id: string, token: string, choice: NewerChoice & { actor: string }) =>
    call<EditAnswer>(`${doc(id)}/newer/${token}/take`, choice),
  coming: () => call<ComingSample[]>('/coming'),
  samples: () => call<SampleFile[]>('/samples'),
  bringInSample: (name: string) => call<{ id: string; title: string }>(`/samples/${encodeURIComponent(name)}`, {}),
  library: () => call<LibraryFont[]>('/fonts'),
  removeFont: (id: string) => call<object>(`/fonts/${encodeURIComponent(id)}`, undefined, 'DELETE'),
  roleSets: () => call<RoleSet[]>('/role-sets'),
  keepRoleSet: (set: Omit<RoleSet, 'id'>) => call<RoleSet>('/role-sets', set),
  removeRoleSet: (id: string) => call<object>(`/role-sets/${encodeURIComponent(id)}`, undefined, 'DELETE'),
  keptRecipes: () => call<Recipe[]>('/recipes'),
  keepRecipe: (recipe: Omit<Recipe, 'id'>) => call<Recipe>('/recipes', recipe),
  readRecipe: (file: { called: string; text: string }) => call<Omit<Recipe, 'id'>>('/recipes/read', file),
  renameRecipe: ({ id, name }: { id: string; name: string }) => call<object>(`/recipes/${encodeURIComponent(id)}/name`, { name }),
  removeRecipe: (id: string) => call<object>(`/recipes/${encodeURIComponent(id)}`, undefined, 'DELETE'),
  takeFiles: (id: string, which: z.infer<typeof FilesOfAnother>) => call<object>(`${doc(id)}/files/take`, which),
  edit: (id: string, body: { base: number; actor: string; edits: WaitingEdit[] }) => call<EditAnswer>(`${doc(id)}/edits`, body),
  undo: (id: string, body: { base: number; actor: string; rows: number[]; uid: string }) => call<EditAnswer>(`${doc(id)}/undo`, body),
  since: (id: string, seq: number) => call<EditAnswer>(`${doc(id)}/edits?since=${seq}`),
  outputKinds: () => call<OutputKind[]>('/outputs'),
  outputs: (id: string) => call<OutputState[]>(`${doc(id)}/outputs`),
  run: (id: string, recipe: string, actor: string) => call<Run>(`${doc(id)}/runs`, { recipe, actor }),
  refresh: (id: string, actor: string) => call<Run[]>(`${doc(id)}/refresh`, { actor }),
  rehearse: (id: string, page: number, settings?: Record<string, unknown>) =>
    call<z.infer<typeof Rehearsal>>(`${doc(id)}/rehearsals`, { page, ...(settings && { settings }) }),
  cancel: (run: string) => call<{ run: Run | null }>(`/runs/${run}/cancel`, {}),
  runs: () => call<Run[]>('/runs'),
  plan: (folio: string, recipe: string) => call<z.infer<typeof Ledger>>(`/folios/${folio}/recipes/${encodeURIComponent(recipe)}/plan`),
  ledger: (run: string) => call<z.infer<typeof Ledger>>(`/runs/${run}/ledger`),
  weights: (run: string) => call<Weights>(`/runs/${run}/weights`),
  published: (id: string) => call<PublishedSite[]>(`${doc(id)}/published`),
  publish: (id: string, recipe: string, older: boolean) => call<PublishedSite>(`${doc(id)}/published`, { recipe, older }),
  publishRefreshed: (id: string, recipe: string, actor: string) => call<Run>(`${doc(id)}/published/refreshed`, { recipe, actor }),
  showVersion: (site: string, version: number | null) => call<PublishedSite>(`/published/${site}/shown`, { version }),
  removeSite: (site: string) => call<object>(`/published/${site}`, undefined, 'DELETE'),
  phone: (site: string) => call<OnPhones>(`/published/${site}/phone`),
  openPhone: (site: string) => call<OnPhones>(`/published/${site}/phone`, {}),
  closePhone: (site: string) => call<object>(`/published/${site}/phone`, undefined, 'DELETE'),
  collected: (id: string) => call<Measures>(`/collected?id=${encodeURIComponent(id)}`),
  clearCollected: (id: string) => call<object>(`/collected?id=${encodeURIComponent(id)}`, undefined, 'DELETE'),
  countTexts: (id: string, language: string, settings: Record<string, unknown>, others: readonly string[]) =>
    call<Counted>(`${doc(id)}/languages/${language}/count`, { settings, others }),
  remember: (id: string, language: string, units: Record<string, TranslatedUnit>) =>
    call<{ added: number }>(`${doc(id)}/languages/${language}/memory`, { units }),
  keywords: (id: string) => call<string[]>(`${doc(id)}/keywords`),
  matches: (id: string, language: string, unit: string, segment: number) =>
    call<FoundMatch[]>(`${doc(id)}/languages/${language}/matches`, { unit, segment }),
  memory: (source: string, target: string, words: string) =>
    call<{ of: number; entries: MemoryEntry[] }>(`/memory/${source}/${target}/entries?words=${encodeURIComponent(words)}`),
  memoryLengths: (source: string, target: string) => call<Lengths>(`/memory/${source}/${target}/lengths`),
  letters: (id: string, language: string) => call<LettersReport>(`${doc(id)}/languages/${language}/letters`),
  changeMemory: (source: string, target: string, entry: string, said: TextPart[]) =>
    call<object>(`/memory/${source}/${target}/entries/${entry}`, { target: said }),
  forgetMemory: (source: string, target: string, entry: string) =>
    call<object>(`/memory/${source}/${target}/entries/${entry}`, undefined, 'DELETE'),
  known: (id: string, language: string) => call<{ units: Record<string, TranslatedUnit> }>(`${doc(id)}/languages/${language}/known`, {}),
  terms: (source: string, target: string) => call<KeptTerm[]>(`/terms/${source}/${target}`),
  keepTerm: (source: string, target: string, term: Term) => call<{ added: number }>(`/terms/${source}/${target}`, term),
  removeTerm: (source: string, target: string, id: string) => call<object>(`/terms/${source}/${target}/${id}`, undefined, 'DELETE'),
  jobs: (id: string) => call<JobOnList[]>(`${doc(id)}/jobs`),
  askFor: (id: string, job: z.input<typeof NewJob>) => call<JobOnList>(`${doc(id)}/jobs`, job),
  askAgain: (job: string) => call<JobOnList>(`/jobs/${job}/again`, {}),
  moveJob: (job: string, state: 'withdrawn' | 'accepted') => call<JobOnList>(`/jobs/${job}/state`, { state }),
  removeJob: (job: string) => call<object>(`/jobs/${job}`, undefined, 'DELETE'),
  notices: () => call<Notice[]>('/notices'),
  noticesSeen: (ids: string[]) => call<object>('/notices/seen', { ids }),
  outbox: () => call<Letter[]>('/outbox'),
  guestJob: () => call<GuestJob>('/job'),
  answerJob: (answer: GuestAnswer) => call<GuestJob>('/job', answer),
  settings: () => call<{ resultPort: number }>('/settings'),
};

export const fileUrl = (run: string, path: string, download = false): string =>
  `${API_ROOT}/runs/${run}/file/${path}${download ? '?download' : ''}`;
export const zipUrl = (run: string): string => `${API_ROOT}/runs/${run}/result.zip`;

/** Brings in a document. */
export const upload = (file: File, reading: string, onProgress: (share: number) => void) =>
  send<{ id: string; title: string }>(`/folios?reading=${reading}`, file, onProgress);
/** Sends a newer version of a document's source. */
export const sendNewer = (id: string, file: File, onProgress: (share: number) => void) =>
  send<NewerProposal>(`${doc(id)}/newer`, file, onProgress);
/** Sends an office file that colleagues have worked on, to see what they changed. */
export const sendCorrections = (id: string, file: File): Promise<Corrections> =>
  send<Corrections>(`${doc(id)}/corrections`, file, () => undefined).done;
/** A file that a translator sent back, held against the document; nothing is taken. */
export const sendBack = (id: string, language: string, file: File): Promise<BackHome> =>
  send<BackHome>(`${doc(id)}/languages/${language}/return`, file, () => undefined).done;
export const newerPicture = (id: string, token: string, side: 'here' | 'there', page: number): string =>
  `${API_ROOT}${doc(id)}/newer/${token}/${side}/${page}.svg`;
/** The file that a job delivered. */
export async function deliveryOf(job: string): Promise<File> {
  const answer = await fetch(`${API_ROOT}/jobs/${encodeURIComponent(job)}/delivery`);
  if (!answer.ok) throw new ApiProblem(answer.status, 'delivery', 'The delivered file is not there any more.', 'Ask for it again.');
  const name = /filename="([^"]+)"/.exec(answer.headers.get('content-disposition') ?? '')?.[1] ?? 'delivered.xlf';
  return new File([await answer.blob()], name);
}
/** Takes a file of terms. */
export const sendTerms = (source: string, target: string, file: File): Promise<{ added: number; others: number }> =>
  send<{ added: number; others: number }>(`/terms/${source}/${target}/file`, file, () => undefined).done;
/** Adds a font to the library. */
export const addFont = (file: File): Promise<LibraryFont> => send<LibraryFont>('/fonts', file, () => undefined).done;

/** Stores a picture, film, sound, captions or a zipped folder with a document. */
export const addFile = (id: string, file: File): Promise<MediaFile> => send<MediaFile>(`${doc(id)}/files`, file, () => undefined).done;

/** Sends a file with progress; the browser's fetch cannot tell how much has gone up. */
function send<T>(path: string, file: File, onProgress: (share: number) => void): { done: Promise<T>; cancel: () => void } {
  const request = new XMLHttpRequest();
  const done = new Promise<T>((resolve, reject) => {
    request.open('POST', `${API_ROOT}${path}`);
    request.responseType = 'json';
    request.upload.onprogress = (e) => onProgress(e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = () => {
      const data = (request.response ?? {}) as T & { code?: string; message?: string; advice?: string };
      if (request.status === 200) resolve(data);
      else reject(new ApiProblem(request.status, data.code ?? 'failed', data.message ?? 'It did not work.', data.advice ?? 'Try again.'));
    };
    request.onerror = () => reject(new ApiProblem(0, 'offline', 'The program does not answer.', 'Start it again.'));
    request.onabort = () => reject(new ApiProblem(0, 'cancelled', 'Bringing in was cancelled.', ''));
    const form = new FormData();
    form.append('file', file);
    request.send(form);
  });
  return { done, cancel: () => request.abort() };
}
