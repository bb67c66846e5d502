import { stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { releaseProxy, wrap, type Remote } from 'comlink'
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs'
import { learntSets } from '../../core/protocols'
import { TableRefused } from '../../exchange/table/cells'
import type { FileReader } from './file-reader'
import type { ReaderThread, Said } from './file-reader-program'

/** Beside the built server (nuxt.config.ts puts it there). */
const FILE = 'file-reader.mjs'
/** A thread that needs more is ended: no log needs a tenth of it. IMPORT_MEMORY_MB sets it. */
const memory = () => ({
  maxOldGenerationSizeMb: Number(process.env.IMPORT_MEMORY_MB ?? 512) || 512,
  maxYoungGenerationSizeMb: 64,
})
/** An answer takes so long, and a second for each megabyte of the file; then the thread is ended. IMPORT_SECONDS sets it. */
const patienceMs = () => (Number(process.env.IMPORT_SECONDS ?? 60) || 60) * 1000
const PER_MEGABYTE_MS = 1_000

const TOO_MUCH = 'This file takes more memory or time to read than any log: nothing of it was stored.'

interface Thread {
  ask: <Value>(question: (reader: Remote<ReaderThread>) => Promise<Said<Value>>) => Promise<Value>
  end: () => Promise<void>
}

/** A thread that reads one file, with a ceiling of memory and of time. */
async function threadFor(path: string): Promise<Thread> {
  const program = join(dirname(process.env.OAK_PINCH_SERVER ?? process.argv[1] ?? ''), FILE)
  const worker = new Worker(program, { resourceLimits: memory() })
  const reader = wrap<ReaderThread>(nodeEndpoint(worker))
  const gone = new Promise<never>((_, fail) => {
    worker.once('error', () => fail(new TableRefused(TOO_MUCH)))
    worker.once('exit', () => fail(new TableRefused(TOO_MUCH)))
  })
  gone.catch(() => undefined)
  const { size } = await stat(path)
  const patience = patienceMs() + Math.floor(size / 1024 ** 2) * PER_MEGABYTE_MS
  const thread: Thread = {
    async ask(question) {
      let timer: NodeJS.Timeout | undefined
      const late = new Promise<never>((_, fail) => {
        timer = setTimeout(() => fail(new TableRefused(TOO_MUCH)), patience)
      })
      try {
        const answer = await Promise.race([question(reader), gone, late])
        if ('value' in answer) return answer.value
        throw 'refused' in answer ? new TableRefused(answer.refused) : new Error(answer.broken)
      } finally {
        clearTimeout(timer)
      }
    },
    async end() {
      reader[releaseProxy]()
      await worker.terminate()
    },
  }
  await thread.ask(async (one) => {
    await one.learn(learntSets())
    return { value: null }
  })
  return thread
}

async function once<Value>(
  path: string,
  question: (reader: Remote<ReaderThread>) => Promise<Said<Value>>,
): Promise<Value> {
  const thread = await threadFor(path)
  try {
    return await thread.ask(question)
  } finally {
    await thread.end()
  }
}

/** Reads in a thread of its own: what a file does to its reader reaches nobody else. */
export const readApart: FileReader = {
  sheets: (path) => once(path, (reader) => reader.sheets(path)),
  shape: (file, remembered, wanted) => once(file.path, (reader) => reader.shape(file, remembered, wanted)),
  async *rows(source, tell) {
    const thread = await threadFor(source.type === 'table' ? source.file.path : source.path)
    try {
      await thread.ask((reader) => reader.open(source))
      for (;;) {
        const { rows, problems, done } = await thread.ask((reader) => reader.next())
        for (const problem of problems) tell(problem)
        yield* rows
        if (done) return
      }
    } finally {
      await thread.end()
    }
  },
}
