import { closeSync, fsyncSync, openSync, readdirSync } from 'node:fs'
import { open } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { PGlite } from '@electric-sql/pglite'
import { NodeFS } from '@electric-sql/pglite/nodefs'

/** Syncs a file or folder to disk. */
function syncPath(path: string): void {
  const file = openSync(path, 'r')
  try {
    fsyncSync(file)
  } finally {
    closeSync(file)
  }
}

/**
 * A log file that has gone since it was written is needed no more: the database takes one away only after a checkpoint,
 * and one that was given another name has been written down under that one as well.
 */
function unlessGone(error: unknown): null {
  if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null
  throw error
}

/** Syncs a folder with everything in it. */
export function syncTree(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) syncTree(path)
    else if (entry.isFile()) syncPath(path)
  }
  syncPath(folder)
}

/** A file of the write-ahead log: 24 hexadecimal digits. */
const LOG_FILE = /^[\dA-F]{24}$/

/** A file the database has open, as its file layer keeps it. */
interface OpenFile {
  nfd: number
  node: unknown
}

/** The part of the file layer that writing to disk hangs on. */
interface FileLayer {
  realPath: (node: unknown) => string
  node_ops: { setattr: (node: unknown, attributes: { mode?: number }) => void }
  stream_ops: {
    fsync?: (file: OpenFile) => number
    write: (file: OpenFile, ...more: unknown[]) => number
  }
}

/**
 * The database's files in a folder, written through to disk: where the database asks for a file to be synced it is.
 * Only the write-ahead log waits: commits that come together share one sync of it (`settle`), and no answer leaves
 * before. Nothing else reaches the disk while the log that speaks of it has not.
 */
export class SyncedFiles extends NodeFS {
  /** Log files written since they were last synced. */
  private readonly written = new Set<string>()
  /** Log files whose sync is under way: until it ends they count as not synced. */
  private readonly syncing = new Set<string>()
  private running: Promise<void> | null = null
  private next: Promise<void> | null = null
  /** How often the log was synced: what tests and the bench count. */
  syncs = 0

  constructor(private readonly folder: string) {
    super(folder)
  }

  override async init(pg: PGlite, options: Parameters<NodeFS['init']>[1]): ReturnType<NodeFS['init']> {
    const made = await super.init(pg, options)
    made.emscriptenOpts.preRun = [
      ...(made.emscriptenOpts.preRun ?? []),
      (module: unknown) => this.hook((module as { NODEFS: FileLayer }).NODEFS),
    ]
    return made
  }

  private hook(layer: FileLayer): void {
    const { write } = layer.stream_ops
    const { setattr } = layer.node_ops
    const pathOf = ({ node }: OpenFile) => layer.realPath(node)
    const isLog = (path: string) => LOG_FILE.test(basename(path))
    // Modes the database sets itself ignore the mask of this process: nobody else reads these files all the same.
    layer.node_ops.setattr = (node, attributes) =>
      setattr(node, attributes.mode === undefined ? attributes : { ...attributes, mode: attributes.mode & ~0o077 })
    layer.stream_ops.fsync = (file) => {
      const path = pathOf(file)
      if (isLog(path)) {
        this.written.add(path)
      } else {
        this.syncLogNow()
        fsyncSync(file.nfd)
      }
      return 0
    }
    layer.stream_ops.write = (file, ...more) => {
      if (this.written.size + this.syncing.size > 0 && !isLog(pathOf(file))) this.syncLogNow()
      return write.call(layer.stream_ops, file, ...more)
    }
  }

  /** Resolves once everything committed before the call is on the disk. */
  settle(): Promise<void> {
    if (!this.running) return this.run()
    this.next ??= this.running
      .catch(() => undefined)
      .then(() => {
        this.next = null
        return this.run()
      })
    return this.next
  }

  private run(): Promise<void> {
    this.running = this.syncLog().finally(() => {
      this.running = null
    })
    return this.running
  }

  private async syncLog(): Promise<void> {
    const files = [...this.written]
    if (files.length === 0) return
    for (const path of files) {
      this.written.delete(path)
      this.syncing.add(path)
    }
    try {
      for (const path of [...files, join(this.folder, 'pg_wal')]) {
        const file = await open(path, 'r').catch(unlessGone)
        await file?.sync().finally(() => file.close())
      }
      this.syncs += 1
    } catch (error) {
      for (const path of files) this.written.add(path)
      throw error
    } finally {
      this.syncing.clear()
    }
  }

  /** Syncs the log before something else is written, without waiting for a sync under way. */
  private syncLogNow(): void {
    const files = new Set([...this.written, ...this.syncing])
    if (files.size === 0) return
    for (const path of [...files, join(this.folder, 'pg_wal')]) {
      try {
        syncPath(path)
      } catch (error) {
        unlessGone(error)
      }
    }
    this.written.clear()
    this.syncing.clear()
  }
}
