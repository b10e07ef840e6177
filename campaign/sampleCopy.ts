/** Brings in a copy of a sample, so that whatever is done to it leaves the samples as they are. Gives the document's id. */
export async function sampleCopy(origin: string, title: string): Promise<string> {
  const shelf = (await (await fetch(`${origin}/api/folios`)).json()) as { id: string; title: string }[];
  const sample = shelf.find((d) => d.title === title);
  if (!sample) throw new Error(`“${title}” is not on the shelf.`);
  const body = new FormData();
  body.set('file', await (await fetch(`${origin}/api/folios/${sample.id}/package`)).blob(), 'copy.efolio');
  const answer = await fetch(`${origin}/api/folios`, { method: 'POST', headers: { origin }, body });
  if (!answer.ok) throw new Error(`The copy of “${title}” was not taken: ${await answer.text()}`);
  return ((await answer.json()) as { id: string }).id;
}
