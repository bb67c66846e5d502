import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { text } from 'node:stream/consumers'
import { pipeline } from 'node:stream/promises'
import { parentPort, Worker, workerData } from 'node:worker_threads'
import Papa from 'papaparse'
import type { SpanEnd } from '../core/composition/end-figures'
import { dayOf } from '../core/composition/facts'
import { clientEvidence, followedEnd, judgeFigures, StudioNoise, type Change, type Family } from '../core/following'
import { quoted } from '../exchange/header'
import { runCommand } from './streamed'
import { readingRows } from '../exchange/reading-rows'
import { clientsOf, type FollowedClient } from './followed-clients'

/** Header of the answer. */
const HEADER = 'client,at,figure,value,change,low,high,odds,verdict,noise_sd,noise_freedom,start'

const FIGURES = ['sum', 'fat', 'lean', 'weight', 'percent'] as const
const FAMILIES: readonly Family[] = FIGURES

/** A verdict in the words of this table: only what is established or leans has a way. */
function verdictOf({ verdict, change }: Change): string {
  const way = change < 0 ? 'down' : 'up'
  if (verdict === 'real') return `real ${way}`
  return verdict === 'leaning' || verdict === 'one-site' ? `leaning ${way}` : 'not told apart'
}

function row(client: string, at: string, figure: string, change: Change, start: string): string {
  const { now, low, high, odds, noise } = change
  const numbers = [now, change.change, low, high, odds]
  // A weighted sum of whole and half numbers, whose last digits are its rounding's.
  const freedom = Number(noise.freedom.toFixed(9))
  const cells = [quoted(client), at, figure, ...numbers, verdictOf(change), noise.sd, freedom, start]
  return `${cells.join(',')}\n`
}

/**
 * Every check-in after the first, held against the first with the error learnt from all other clients until then.
 * @param part which of so many shares of the clients to answer for
 */
function* followed(clients: readonly FollowedClient[], { part = 0, of = 1 } = {}): Generator<string> {
  const ends = clients.map(({ checkins }) => checkins.map(({ facts }) => followedEnd(facts)))
  const studio = new StudioNoise(
    new Map(clients.map(({ id }, c) => [id, clientEvidence(ends[c] ?? [], { families: FAMILIES })])),
  )
  const [from, to] = [part, part + 1].map((one) => Math.round((one * clients.length) / of)) as [number, number]
  for (let c = from; c < to; c += 1) {
    const { id, checkins } = clients[c] as FollowedClient
    const own = ends[c] ?? []
    const start = checkins[0]?.at ?? ''
    let said = ''
    for (let k = 1; k < own.length; k += 1) {
      const noises = studio.for(id, dayOf((own[k] as SpanEnd).facts))
      const found = judgeFigures(own.slice(0, k + 1), FIGURES, { noises, running: false })
      for (const figure of FIGURES) {
        const change = found[figure]
        if (change) said += row(id, checkins[k]?.at ?? '', figure, change, start)
      }
    }
    if (said) yield said
  }
}

type Refuse = Parameters<typeof clientsOf>[1]

function readClients(input: string, refuse: Refuse): FollowedClient[] {
  return clientsOf(readingRows(Papa.parse<string[]>(input, { delimiter: ',' }).data, refuse), refuse)
}

/** What one thread of several answers for. */
interface Share {
  input: string
  part: number
  of: number
}

/** A share of the answer from a thread of its own. */
async function answered(share: Share): Promise<string> {
  const worker = new Worker(new URL(import.meta.url), { workerData: share })
  const [said] = (await Promise.race([
    once(worker, 'message'),
    once(worker, 'error').then(([error]) => Promise.reject(error as Error)),
  ])) as [string]
  return said
}

/** Clients from which on the work is shared among threads. */
const MANY = 24

async function main(path: string | undefined): Promise<void> {
  // Nobody's error is known before every row has been read.
  const input = path && path !== '-' ? readFileSync(path, 'utf8') : await text(process.stdin)
  const clients = readClients(input, (line, reason) => process.stderr.write(`line ${line}: ${reason}\n`))
  const of = clients.length < MANY ? 1 : Math.min(8, availableParallelism())
  const shares = of === 1 ? [] : Array.from({ length: of }, (_, part) => answered({ input, part, of }))
  async function* answer() {
    yield `${HEADER}\n`
    if (of === 1) yield* followed(clients)
    for (const share of shares) yield await share
  }
  await pipeline(answer(), process.stdout, { end: false })
}

if (parentPort) {
  const { input, ...share } = workerData as Share
  parentPort.postMessage(
    [
      ...followed(
        readClients(input, () => undefined),
        share,
      ),
    ].join(''),
  )
} else {
  runCommand(main)
}
