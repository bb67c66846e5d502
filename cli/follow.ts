import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { text } from 'node:stream/consumers'
import { pipeline } from 'node:stream/promises'
import { parentPort, Worker, workerData } from 'node:worker_threads'
import Papa from 'papaparse'
import { dayOf } from '../core/composition/facts'
import {
  ASSUMED_NOISES,
  chosenShare,
  clientEvidence,
  followedEnd,
  followLooks,
  saidUnasked,
  StudioNoise,
  type Change,
  type Family,
  type UnaskedLine,
} from '../core/following'
import { quoted } from '../exchange/header'
import { runCommand } from './streamed'
import { readingRows } from '../exchange/reading-rows'
import { clientsOf, type FollowedClient } from './followed-clients'

/** Header of the answer: the columns of earlier versions first, in their order. */
const HEADER =
  'client,at,figure,value,change,low,high,odds,verdict,noise_sd,noise_freedom,start,verdict_code,since_12_weeks,since_last,steady_since'

const FIGURES = ['sum', 'fat', 'lean', 'weight', 'percent'] as const
const FAMILIES: readonly Family[] = FIGURES

/** A verdict in the words this table has always had: only what is real or shows some sign has a way. */
function verdictOf({ verdict, change }: Change): string {
  const way = change < 0 ? 'down' : 'up'
  if (verdict === 'real') return `real ${way}`
  return verdict === 'some-sign' || verdict === 'one-fold' ? `leaning ${way}` : 'not told apart'
}

interface Said {
  client: string
  at: string
  start: string
  /** Codes of the change over twelve weeks and since last time. */
  twelve: string
  last: string
  steadySince: string
}

function row(figure: string, change: Change, { client, at, start, twelve, last, steadySince }: Said): string {
  const { now, low, high, odds, noise, verdict } = change
  const numbers = [now, change.change, low, high, odds]
  // A weighted sum of whole and half numbers, whose last digits are its rounding's.
  const freedom = Number(noise.freedom.toFixed(9))
  const cells = [quoted(client), at, figure, ...numbers, verdictOf(change), noise.sd, freedom, start]
  return `${[...cells, verdict, twelve, last, steadySince].join(',')}\n`
}

/** The code of a figure's change on an unasked line; empty where there is none. */
function codeOn(lines: readonly UnaskedLine[], since: UnaskedLine['since'], figure: (typeof FIGURES)[number]): string {
  const line = lines.find((one) => one.since === since)
  return (figure === 'percent' ? null : line?.changes[figure])?.verdict ?? ''
}

/**
 * Every check-in after the first, compared with the first, with the error learnt from all other clients until then and what
 * was said before. The shorter spans stand beside the newest check-in.
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
    const held = own.map((end, k) => (k === 0 ? ASSUMED_NOISES : studio.for(id, dayOf(end.facts), FAMILIES)))
    const noisesAt = (place: number) => held[place] ?? ASSUMED_NOISES
    const looks = followLooks(own, FIGURES, { noisesAt })
    const { lines, steadySince } = saidUnasked(own, {
      start: 0,
      share: chosenShare(1),
      noises: noisesAt(own.length - 1),
      wanted: ['twelve-weeks', 'last-time'],
    })
    let said = ''
    looks.forEach((found, i) => {
      const isNewest = i === looks.length - 1
      for (const figure of FIGURES) {
        const change = found[figure]
        if (!change) continue
        said += row(figure, change, {
          client: id,
          at: checkins[i + 1]?.at ?? '',
          start,
          twelve: isNewest ? codeOn(lines, 'twelve-weeks', figure) : '',
          last: isNewest ? codeOn(lines, 'last-time', figure) : '',
          steadySince: isNewest && figure === 'sum' ? (steadySince ?? '') : '',
        })
      }
    })
    if (said) yield said
  }
}

type Refuse = Parameters<typeof clientsOf>[1]

function readClients(input: string, refuse: Refuse): FollowedClient[] {
  return clientsOf(readingRows(Papa.parse<string[]>(input, { delimiter: ',' }).data, refuse), refuse)
}

/** What one thread of several answers for. */
interface Share {
  clients: readonly FollowedClient[]
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
  const shares = of === 1 ? [] : Array.from({ length: of }, (_, part) => answered({ clients, part, of }))
  async function* answer() {
    yield `${HEADER}\n`
    if (of === 1) yield* followed(clients)
    for (const share of shares) yield await share
  }
  await pipeline(answer(), process.stdout, { end: false })
}

if (parentPort) {
  const { clients, ...share } = workerData as Share
  parentPort.postMessage([...followed(clients, share)].join(''))
} else {
  runCommand(main)
}
