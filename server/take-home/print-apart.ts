import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { TakeHomeRequest } from './facts'
import type { PdfAnswer, PdfAsked } from './pdf-worker'
import type { AssessorFacts } from './assessor'
import type { ProtocolFacts } from './protocol'

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

type What = { request: TakeHomeRequest } | { protocol: ProtocolFacts } | { assessor: AssessorFacts }

function ask(what: What): Promise<{ pdf: Uint8Array; day: string } | null> {
  worker ??= start()
  const id = (asked += 1)
  const printed = new Promise<{ pdf: Uint8Array; day: string } | null>((resolve, reject) =>
    waiting.set(id, { resolve, reject }),
  )
  worker.postMessage({ id, ...what } satisfies PdfAsked)
  return printed
}

/** Composes and prints the page to take home in a thread of its own; null when there is nothing to take home yet. */
export function printApart(request: TakeHomeRequest): Promise<{ pdf: Uint8Array; day: string } | null> {
  return ask({ request })
}

async function surely(what: What): Promise<Uint8Array> {
  const printed = await ask(what)
  if (!printed) throw new Error('A page was not printed.')
  return printed.pdf
}

/** Prints a challenge's closing protocol there. */
export function printProtocol(protocol: ProtocolFacts): Promise<Uint8Array> {
  return surely({ protocol })
}

/** Prints an assessor's record there. */
export function printAssessor(assessor: AssessorFacts): Promise<Uint8Array> {
  return surely({ assessor })
}
