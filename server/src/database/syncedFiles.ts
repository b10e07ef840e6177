import { fsyncSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import { syncPath } from '../syncToDisk.ts';

type Initialised = Awaited<ReturnType<NodeFS['init']>>;
/** What Emscripten's file system of the host knows of an open file: `nfd` is its descriptor; folders have none. */
interface Stream {
  nfd?: number;
  node: object;
}
export interface HostFiles {
  stream_ops: { fsync?: (stream: Stream) => number };
  realPath(node: object): string;
}

/**
 * The database's files in a folder, written through to the disk where the database asks for it. The file system that comes with
 * it answers such requests without doing anything (Emscripten's NODEFS has no `fsync`), so that a power cut would take
 * what was confirmed.
 */
export class SyncedFiles extends NodeFS {
  override async init(pg: Parameters<NodeFS['init']>[0], options: Parameters<NodeFS['init']>[1]): Promise<Initialised> {
    const made = await super.init(pg, options);
    const preRun = [...(made.emscriptenOpts.preRun ?? [])] as ((m: { NODEFS: HostFiles }) => void)[];
    preRun.push((m) => this.prepare(m.NODEFS));
    return { ...made, emscriptenOpts: { ...made.emscriptenOpts, preRun: preRun as never } };
  }

  /** Gives the host's files what they lack, before any is opened. */
  protected prepare(files: HostFiles): void {
    files.stream_ops.fsync = (stream) => {
      if (stream.nfd === undefined) syncPath(files.realPath(stream.node));
      else fsyncSync(stream.nfd);
      return 0;
    };
  }
}

/** As the database starts: it waits for the disk at each commit, with the one call that reaches it from here. */
export const SYNCED_START: string[] = [...PGlite.defaultStartParams.filter((p) => p !== '-F'), '-c', 'wal_sync_method=fsync'];
