import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { SyncedFiles } from '../../src/database/syncedFiles.ts';
import type { HostFiles } from '../../src/database/syncedFiles.ts';

interface OpenFile {
  node: object;
}
interface Node {
  id: number;
}
/** More of the host's file system than the program itself needs: everything that changes files. */
interface Changing extends HostFiles {
  stream_ops: HostFiles['stream_ops'] & {
    write(stream: OpenFile, buffer: Uint8Array, offset: number, length: number, position: number): number;
    allocate?: unknown;
  };
  node_ops: {
    mknod(parent: Node, name: string, mode: number, dev: number): Node;
    rename(node: Node, parent: Node, name: string): void;
    unlink(parent: Node, name: string): void;
    rmdir(parent: Node, name: string): void;
    setattr(node: Node, attributes: { size?: number }): void;
  };
}

/** What happened to files, in order. */
type Step =
  | { kind: 'make'; path: string; folder: boolean }
  | { kind: 'write'; path: string; at: number; bytes: Uint8Array }
  | { kind: 'truncate'; path: string; size: number }
  | { kind: 'sync'; path: string }
  | { kind: 'rename'; path: string; to: string }
  | { kind: 'remove'; path: string };

const isFolder = (mode: number): boolean => (mode & 0o170000) === 0o040000;

/** A file as far as the disk has it, and what was written to it since. */
interface File {
  synced: Buffer;
  since: { at: number; bytes: Uint8Array }[];
}

/**
 * A folder of database files that records every write, so that the folder can be put together as a power cut would have left it
 * after any step: files have what was synced, and of what was written since nothing, or some of it. Names are kept in order, as
 * journaling file systems keep them.
 */
export class LossyFiles extends SyncedFiles {
  readonly steps: Step[] = [];

  protected override prepare(host: HostFiles): void {
    super.prepare(host);
    const files = host as Changing;
    const pathOf = (node: object): string => relative(resolve(this.rootDir), files.realPath(node));
    const before = { ...files.stream_ops, ...files.node_ops };
    files.stream_ops.write = (stream, buffer, offset, length, position) => {
      const done = before.write(stream, buffer, offset, length, position);
      this.steps.push({ kind: 'write', path: pathOf(stream.node), at: position, bytes: buffer.slice(offset, offset + done) });
      return done;
    };
    files.stream_ops.fsync = (stream) => {
      this.steps.push({ kind: 'sync', path: pathOf(stream.node) });
      return 0;
    };
    files.node_ops.mknod = (parent, name, mode, dev) => {
      const node = before.mknod(parent, name, mode, dev);
      this.steps.push({ kind: 'make', path: pathOf(node), folder: isFolder(mode) });
      return node;
    };
    files.node_ops.rename = (node, parent, name) => {
      const [path, to] = [pathOf(node), join(pathOf(parent), name)];
      before.rename(node, parent, name);
      this.steps.push({ kind: 'rename', path, to });
    };
    for (const remove of ['unlink', 'rmdir'] as const)
      files.node_ops[remove] = (parent, name) => {
        before[remove](parent, name);
        this.steps.push({ kind: 'remove', path: join(pathOf(parent), name) });
      };
    files.node_ops.setattr = (node, attributes) => {
      before.setattr(node, attributes);
      if (attributes.size !== undefined) this.steps.push({ kind: 'truncate', path: pathOf(node), size: attributes.size });
    };
  }

  /**
   * Puts together what a power cut after so many steps would have left. `start`: the files as they lay on the disk before the
   * first; `survives` says of each write since a file was last synced whether it got to the disk all the same.
   */
  static rebuild(start: ReadonlyMap<string, Uint8Array>, steps: readonly Step[], into: string, survives: () => boolean): void {
    const files = new Map<string, File>([...start].map(([path, bytes]) => [path, { synced: Buffer.from(bytes), since: [] }]));
    const folders = new Set<string>();
    for (const step of steps) {
      const file = files.get(step.path);
      if (step.kind === 'make') {
        if (step.folder) folders.add(step.path);
        else files.set(step.path, { synced: Buffer.alloc(0), since: [] });
      } else if (step.kind === 'rename') {
        if (file) files.delete(step.path);
        for (const path of [...files.keys()]) {
          if (!path.startsWith(`${step.path}/`)) continue;
          files.set(step.to + path.slice(step.path.length), files.get(path)!);
          files.delete(path);
        }
        if (file) files.set(step.to, file);
      } else if (step.kind === 'remove') {
        files.delete(step.path);
        folders.delete(step.path);
      } else if (file && step.kind === 'sync') {
        for (const { at, bytes } of file.since) write(file, at, bytes);
        file.since = [];
      } else if (file && step.kind === 'truncate') {
        // A file's length is a name's matter, as its place is.
        const synced = Buffer.alloc(step.size);
        file.synced.copy(synced);
        file.synced = synced;
      } else if (file && step.kind === 'write') file.since.push({ at: step.at, bytes: step.bytes });
    }
    for (const folder of folders) mkdirSync(join(into, folder), { recursive: true });
    for (const file of files.values()) for (const { at, bytes } of file.since) if (survives()) write(file, at, bytes);
    for (const [path, { synced }] of files) {
      mkdirSync(dirname(join(into, path)), { recursive: true });
      writeFileSync(join(into, path), synced);
    }
  }
}

function write(file: File, at: number, bytes: Uint8Array): void {
  if (at + bytes.length > file.synced.length)
    file.synced = Buffer.concat([file.synced, Buffer.alloc(at + bytes.length - file.synced.length)]);
  file.synced.set(bytes, at);
}
