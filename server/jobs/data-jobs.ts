import { mkdir, readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { hoursToMilliseconds } from 'date-fns'
import { v7 as uuid } from 'uuid'
import type { DataJob } from '../../shared/schemas/data'
import { progressOf, Stopped, type Progress } from '../exchange/progress'
import { sentenceOf } from '../exchange/sentences'
import type { Bus } from '../ports/bus'
import { errorFacts, log } from '../http/log'
import { countJob } from '../http/metrics'

/** What work gives when it has ended well. */
export interface Made {
  result?: unknown
  /** A file it has written, and what it is called where it is saved. */
  file?: { path: string; name: string }
}

interface Own {
  studioId: string
  job: DataJob
  path: string | null
}

/** How long what was made can be fetched. */
const KEPT_MS = hoursToMilliseconds(2)
const TOLD_EVERY_MS = 250

/**
 * Long work of this process, and what others tell of theirs. Files it makes lie in a folder of the data folder until they
 * are fetched or too old.
 */
export class DataJobs {
  private readonly known = new Map<string, Own>()
  private readonly stops = new Map<string, AbortController>()
  /** Files are to go once nothing is under way. */
  private forgets = false

  constructor(
    private readonly folder: string,
    private readonly bus: () => Bus,
  ) {}

  /** Hears what other processes tell; called once the ports are set. */
  listen(): void {
    this.bus().subscribe('jobs', (message) => {
      if (message.kind === 'stop-job') this.stops.get(message.id)?.abort()
      if (message.kind === 'forget-files') void this.forgetFiles()
      if (message.kind === 'job' && !this.stops.has(message.job.id) && !this.known.get(message.job.id)?.path)
        this.known.set(message.job.id, { job: message.job, studioId: message.studioId, path: this.pathOf(message.job) })
    })
  }

  private pathOf({ id, fileName }: DataJob): string | null {
    return fileName ? join(this.folder, id) : null
  }

  /** A place for a file of somebody's: an upload, an export. */
  async place(id: string): Promise<string> {
    await mkdir(this.folder, { recursive: true, mode: 0o700 })
    return join(this.folder, id)
  }

  /** Begins work and gives it at once; how far it is can be asked. */
  start(
    who: { studioId: string },
    what: Pick<DataJob, 'kind' | 'about'>,
    work: (progress: Progress, path: () => Promise<string>) => Promise<Made>,
  ): DataJob {
    const id = uuid()
    const own: Own = {
      studioId: who.studioId,
      path: null,
      job: {
        id,
        ...what,
        state: 'running',
        step: null,
        sentence: null,
        fileName: null,
        result: null,
        startedAt: new Date().toISOString(),
      },
    }
    const stop = new AbortController()
    this.known.set(id, own)
    this.stops.set(id, stop)
    let told = 0
    const progress = progressOf(stop.signal, (step) => {
      own.job = { ...own.job, step }
      if (Date.now() - told < TOLD_EVERY_MS) return
      told = Date.now()
      this.tell(own)
    })
    void this.run(own, () => work(progress, () => this.place(id)))
    return own.job
  }

  private async run(own: Own, work: () => Promise<Made>): Promise<void> {
    const { id } = own.job
    try {
      const { result = null, file } = await work()
      own.path = file?.path ?? null
      own.job = { ...own.job, state: 'done', result, fileName: file?.name ?? null }
    } catch (error) {
      const sentence = sentenceOf(error)
      if (!sentence) log.error({ what: 'work failed', kind: own.job.kind, ...errorFacts(error) })
      await rm(join(this.folder, id), { force: true })
      own.job = {
        ...own.job,
        state: error instanceof Stopped ? 'stopped' : 'failed',
        sentence: sentence ?? 'This failed for a reason of ours; it was noted. Nothing was changed.',
      }
    }
    countJob(own.job.kind, own.job.state)
    this.tell(own)
    this.stops.delete(id)
    if (this.forgets) await this.forgetFiles()
  }

  /** Forgets files in every process of the studio, this one first. @returns what stays until work under way has ended */
  async forgetFilesEverywhere(now = Date.now()): Promise<{ about: string; goneAt: string }[]> {
    const busy = await this.forgetFiles()
    this.bus().publish('jobs', { kind: 'forget-files' })
    return busy.map(({ about }) => ({ about, goneAt: new Date(now + KEPT_MS).toISOString() }))
  }

  /**
   * Removes every upload and every file that was made, and what is known of ended work: somebody was erased who may be in
   * them. While work is under way its files stay, and go when it has ended.
   * @returns the work under way
   */
  private async forgetFiles(): Promise<DataJob[]> {
    for (const [id, { job }] of this.known) if (job.state !== 'running') this.known.delete(id)
    const busy = [...this.known.values()].map(({ job }) => job)
    this.forgets = busy.length > 0
    if (busy.length > 0) return busy
    for (const name of await readdir(this.folder).catch(() => []))
      await rm(join(this.folder, name), { force: true, recursive: true })
    return []
  }

  private tell({ studioId, job }: Own): void {
    this.bus().publish('jobs', { kind: 'job', job, studioId })
  }

  find({ studioId }: { studioId: string }, id: string): { job: DataJob; path: string | null } | null {
    const own = this.known.get(id)
    return own?.studioId === studioId ? { job: own.job, path: own.path } : null
  }

  /** What is under way in a studio, the newest first. */
  running({ studioId }: { studioId: string }): DataJob[] {
    return [...this.known.values()]
      .filter((own) => own.studioId === studioId && own.job.state === 'running')
      .map(({ job }) => job)
      .reverse()
  }

  stop(id: string): void {
    this.bus().publish('jobs', { kind: 'stop-job', id })
  }

  /** Removes files nobody has fetched for hours, and what is known of work long ended. */
  async sweep(now = Date.now()): Promise<void> {
    for (const name of await readdir(this.folder).catch(() => [])) {
      const file = join(this.folder, name)
      const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: now }))
      if (now - mtimeMs > KEPT_MS) await rm(file, { force: true, recursive: true })
    }
    for (const [id, { job }] of this.known)
      if (job.state !== 'running' && now - Date.parse(job.startedAt) > 2 * KEPT_MS) this.known.delete(id)
  }
}
