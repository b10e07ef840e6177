import { join } from 'node:path';
import { FileBlobs, FileDerived, fontSourcesFor, keepHeapsSmall } from '@elastic-folio/core/node';
import type { FontSource } from '@elastic-folio/core/compose';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { Config } from './config.ts';
import { ConversionPool } from './conversion/pool.ts';
import type { Db } from './database/db.ts';
import { EmbeddedDb } from './database/embedded.ts';
import { migrate } from './database/migrate.ts';
import { DocumentStore } from './documents/documentStore.ts';
import { FontLibrary } from './documents/fontLibrary.ts';
import { NewerVersions } from './documents/newerVersions.ts';
import { KeptRecipes } from './documents/keptRecipes.ts';
import { RoleSets } from './documents/roleSets.ts';
import { SampleLoading } from './documents/loadSamples.ts';
import { SampleFiles } from './documents/sampleFiles.ts';
import { ShelfFactsStore } from './documents/shelfFacts.ts';
import { Surveys } from './documents/survey.ts';
import { EventHub } from './events.ts';
import { Collector } from './handover/collector.ts';
import { PhoneListener } from './handover/phoneListener.ts';
import { publishResult } from './handover/publishResult.ts';
import { PublishedSites } from './handover/publishedSites.ts';
import { InvitationLinks } from './languages/invitationLinks.ts';
import { Notices } from './languages/notices.ts';
import { Outbox } from './languages/outbox.ts';
import { SimulatedService } from './languages/simulatedService.ts';
import { Terms } from './languages/terms.ts';
import { TranslationJobs } from './languages/translationJobs.ts';
import { TranslationMemory } from './languages/translationMemory.ts';
import { Runner } from './runs/runner.ts';
import type { RunnerPaths } from './runs/runner.ts';
import { Plans } from './runs/plans.ts';
import { Rehearsals } from './runs/rehearsals.ts';
import { RunStore } from './runs/runStore.ts';

/** Everything that routes need, put together once. */
export interface Services {
  config: Config;
  db: Db;
  paths: RunnerPaths;
  blobs: FileBlobs;
  derived: FileDerived;
  documents: DocumentStore;
  runs: RunStore;
  runner: Runner;
  pool: ConversionPool;
  library: FontLibrary;
  roleSets: RoleSets;
  keptRecipes: KeptRecipes;
  memory: TranslationMemory;
  terms: Terms;
  jobs: TranslationJobs;
  links: InvitationLinks;
  outbox: Outbox;
  notices: Notices;
  service: SimulatedService;
  newer: NewerVersions;
  rehearsals: Rehearsals;
  plans: Plans;
  samples: SampleFiles;
  loading: SampleLoading;
  shelfFacts: ShelfFactsStore;
  surveys: Surveys;
  published: PublishedSites;
  phones: PhoneListener;
  collector: Collector;
  events: EventHub;
  loaded(id: string): Promise<LoadedFolio>;
  fontSources(id: string): Promise<FontSource[]>;
  close(): Promise<void>;
}

export async function startServices(config: Config): Promise<Services> {
  const db = config.databaseUrl
    ? new (await import('./database/postgres.ts')).PostgresDb(config.databaseUrl)
    : await EmbeddedDb.open(join(config.data, 'database'));
  await migrate(db, join(config.root, 'server', 'migrations'));
  const paths: RunnerPaths = {
    blobs: join(config.data, 'blobs'),
    derived: join(config.data, 'derived'),
    results: join(config.data, 'results'),
    player: join(config.root, 'dist', 'player.js'),
  };
  const blobs = new FileBlobs(paths.blobs);
  const library = new FontLibrary(db, blobs);
  const documents = new DocumentStore(db, library);
  const runs = new RunStore(db);
  keepHeapsSmall();
  const pool = new ConversionPool(paths.derived);
  const events = new EventHub();
  const memory = new TranslationMemory(db);
  const published = new PublishedSites(db, join(config.data, 'published'), paths.results);
  const runner = new Runner(documents, runs, pool, events, paths, memory, async (run) => {
    await publishResult({ documents, published }, run);
  });
  await runner.start(!config.databaseUrl);
  const jobs = new TranslationJobs(db);
  const notices = new Notices(db, events);
  const service = new SimulatedService(jobs, documents, memory, pool, notices, paths.blobs);
  const loaded = (id: string): Promise<LoadedFolio> => documents.loaded(id);
  const derived = new FileDerived(paths.derived);
  const phones = new PhoneListener();
  const loading = new SampleLoading();
  return {
    config,
    db,
    paths,
    blobs,
    derived,
    documents,
    memory,
    terms: new Terms(db),
    jobs,
    links: new InvitationLinks(db),
    outbox: new Outbox(db),
    notices,
    service,
    runs,
    runner,
    pool,
    shelfFacts: new ShelfFactsStore(documents, library, derived),
    surveys: new Surveys(loaded, derived, pool, paths.blobs, events),
    events,
    loaded,
    library,
    roleSets: new RoleSets(db),
    keptRecipes: new KeptRecipes(db),
    published,
    phones,
    collector: new Collector(db),
    loading,
    samples: new SampleFiles(config.root, join(config.data, 'samples')),
    rehearsals: new Rehearsals(documents, pool, paths),
    plans: new Plans(documents, memory, pool, paths),
    newer: new NewerVersions(documents, pool, blobs),
    fontSources: async (id) => fontSourcesFor(await loaded(id), blobs),
    async close() {
      await loading.close();
      service.close();
      documents.close();
      await phones.close();
      await runner.close();
      await pool.close();
      await db.close();
    },
  };
}
