import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { TakeHomeRequest } from './facts'
import type { PdfAnswer, PdfAsked } from './pdf-worker'

/** Beside the built server (nuxt.config.ts puts it there). */
const FILE = 'pdf-worker.mjs'

interface Waiting {
  resolve: (answer: { pdf: Uint8Array; day: string } | null) => void
  reject: (error: Error) => void
}

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, Waiting>()

function start(): Worker {
  const begun = new Worker(join(dirname(process.env.OAK_PINCH_SERVER ?? process.argv[1] ?? ''), FILE))
  begun.unref()
  begun.on('message', (answer: PdfAnswer) => {
    const one = waiting.get(answer.id)
    waiting.delete(answer.id)
    if ('failed' in answer) one?.reject(new Error(`A page could not be printed: ${answer.failed}`))
    else one?.resolve(answer.pdf ? { pdf: answer.pdf, day: answer.day } : null)
  })
  const gone = (error: Error) => {
    worker = null
    for (const { reject } of waiting.values()) reject(error)
    waiting.clear()
  }
  begun.on('error', gone)
  begun.on('exit', () => gone(new Error('The printer has ended.')))
  return begun
}

/** Composes and prints the page to take home in a thread of its own; null when there is nothing to take home yet. */
export function printApart(request: TakeHomeRequest): Promise<{ pdf: Uint8Array; day: string } | null> {
  worker ??= start()
  const id = (asked += 1)
  const printed = new Promise<{ pdf: Uint8Array; day: string } | null>((resolve, reject) =>
    waiting.set(id, { resolve, reject }),
  )
  worker.postMessage({ id, request } satisfies PdfAsked)
  return printed
}
