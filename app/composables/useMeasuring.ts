import { addDays } from 'date-fns'
import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import { composeWith, type Composition } from '#core/composition/checkin'
import type { CheckinFacts } from '#core/composition/facts'
import type { Equation } from '#core/equations/equation'
import { joinLog, nextStep, policyOf, reconcile, valueOf } from '#core/readings'
import type { MeasureId, Reading, Source, Why } from '#core/readings'
import type { SiteId, WayId } from '#core/sites'
import { checkinFacts, protocolOf } from '#shared/checkin-facts'
import type { CheckinRecord, MeasuringFacts } from '#shared/schemas/checkin'
import { heardFacts, joinFacts, NO_FACTS, waitingFacts, type SessionFacts } from '~/composables/session-facts'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'
import type { Waiting } from '~/storage/outbox-db'
import { checkins } from '~/calls'

/** What is to be entered now: the weight first, the height where it is measured, then site after site. */
export type Cell =
  | { kind: 'weight' }
  | { kind: 'height'; round: number }
  | { kind: 'site'; site: SiteId; round: number }
  | { kind: 'none' }

/** A value as entered, with its unit. */
export interface Entered {
  value: number
  unit: Reading['unit']
}

function factsOf(
  record: CheckinRecord,
  { client, caliper }: MeasuringFacts,
  session: SessionFacts,
  wished: readonly SiteId[],
): CheckinFacts {
  const read = session.readings.map(({ site }) => site as SiteId)
  return { ...checkinFacts(record, client, caliper ? [caliper] : [], [...wished, ...read]), ...session }
}

/** The equations this set feeds and the chosen one; their file loads while the facts are on their way. */
async function equationsOf({ checkin, client, choices }: MeasuringFacts): Promise<Equation[]> {
  const { equationsFor, findEquation } = await equationFile()
  const chosen = choices?.equationId ? findEquation(choices.equationId) : null
  return [...new Set([...equationsFor(client.sex, protocolOf(checkin).sites), ...(chosen ? [chosen] : [])])]
}

const equationFile = () => import('#core/equations/registry')

const IDLE_AT_LATEST_MS = 1_000

/** Runs what the first frames need not wait for. */
function whenIdle(run: () => void): void {
  if (typeof requestIdleCallback === 'function') requestIdleCallback(run, { timeout: IDLE_AT_LATEST_MS })
  else setTimeout(run, IDLE_AT_LATEST_MS)
}

/**
 * A running session: the server's facts joined with what this device has not sent yet and what other screens send, and
 * the things a coach does to it. Everything shown is derived from the facts by core.
 */
export function useMeasuring(checkinId: string) {
  const me = useMe()
  const outbox = useOutbox()
  const facts = shallowRef<MeasuringFacts | null>(null)
  /** Only those this protocol feeds: the others need not load on the gym floor. */
  const equations = shallowRef<Equation[]>([])
  /** Facts taken or heard during this visit to the page: they stay once the outbox has passed them on. */
  const taken = shallowRef<SessionFacts>(NO_FACTS)
  const weightSkipped = ref(false)
  /** Sites beyond what this person's equations need, asked for here. */
  const wished = ref<SiteId[]>([])
  const chosen = ref<MeasureId | null>(null)
  /** Where a figure stands half typed: what other screens send does not move it to another site. */
  const typedAt = ref<MeasureId | null>(null)
  /** A reading picked to be struck; null: striking takes the newest. */
  const picked = ref<string | null>(null)

  /** Another screen has thrown this session away. */
  const discarded = ref(false)

  const chosenChoices = () => facts.value?.choices ?? undefined
  const record = computed(() => facts.value?.checkin ?? null)
  const held = computed(() => outbox.waiting.filter((fact) => fact.checkinId === checkinId && !fact.refused))
  const session = computed(() => joinFacts(record.value ?? {}, waitingFacts(held.value), taken.value))
  const log = computed(() => joinLog(session.value.readings, session.value.strikes))
  const live = computed(() => log.value.filter(({ struck }) => !struck))
  const result = computed(() =>
    facts.value && record.value
      ? composeWith(equations.value, factsOf(record.value, facts.value, session.value, wished.value), chosenChoices())
      : null,
  )
  const last = computed<Composition | null>(() => {
    const before = facts.value?.last
    return before && facts.value
      ? composeWith(equations.value, checkinFacts(before, facts.value.client), chosenChoices())
      : null
  })
  /** The set as this person is asked it. */
  const protocol = computed(() => {
    const whole = protocolOf(record.value ?? { protocolId: '' })
    const sites = result.value?.session.sites.map(({ site }) => site) ?? whole.sites
    return { ...whole, sites }
  })
  /** Sites that can still be asked for. */
  const onWish = computed(() =>
    protocolOf(record.value ?? { protocolId: '' }).sites.filter((site) => !protocol.value.sites.includes(site)),
  )

  /** Asks for the sites left to wish and goes to the first of them. */
  function wish(): void {
    const [first] = onWish.value
    wished.value = [...wished.value, ...onWish.value]
    if (first) chosen.value = first
  }
  const heights = computed(() => live.value.filter(({ site }) => site === 'height').map(valueOf))
  const heightDue = computed(() => {
    const { status } = reconcile(heights.value, policyOf('height'))
    return record.value?.withHeight === true && status !== 'agreed' && status !== 'unsteady'
  })

  const cell = computed<Cell>(() => {
    if (!result.value) return { kind: 'none' }
    const height: Cell = { kind: 'height', round: heights.value.length + 1 }
    const at = chosen.value ?? typedAt.value
    if (at === 'weight') return { kind: 'weight' }
    if (at === 'height') return height
    if (at) {
      const row = result.value.session.sites.find(({ site }) => site === at)
      return { kind: 'site', site: at, round: (row?.live.length ?? 0) + 1 }
    }
    // A study compares hands: whoever is measured need not step on the scale again.
    if (result.value.weightKg === null && !weightSkipped.value && !record.value?.studyId) return { kind: 'weight' }
    if (heightDue.value) return height
    const step = nextStep(result.value.session)
    return step.kind === 'measure' ? { kind: 'site', site: step.site, round: step.round } : { kind: 'none' }
  })
  const place = computed(() => (cell.value.kind === 'site' ? cell.value.site : cell.value.kind))

  /** Something stands in the entry, or nothing any more. */
  function typing(open: boolean): void {
    typedAt.value = open && place.value !== 'none' ? place.value : null
  }

  async function load(): Promise<void> {
    void equationFile()
    const holds = outbox.mayHold()
    if (holds) await outbox.load()
    // Sent first: a check-in started without the server is there to be fetched afterwards.
    if (outbox.starts.some(({ id }) => id === checkinId)) await outbox.sendAll()
    const begun = outbox.starts.find(({ id }) => id === checkinId)
    const loaded = begun ? begun.facts : await checkins.read(outbox.moved[checkinId] ?? checkinId)
    equations.value = await equationsOf(loaded)
    // A slow store is not waited for long, and not at all when everything has reached the server.
    if (holds) await Promise.race([recall(), new Promise((late) => setTimeout(late, 4_000))])
    facts.value = loaded
    if (holds) void outbox.sendAll()
    else whenIdle(() => void recall().then(outbox.sendAll))
  }

  /** Facts this device has sent complete what a cached answer lacks. */
  async function recall(): Promise<void> {
    const sent = await outbox.sentOf(checkinId)
    taken.value = joinFacts(taken.value, waitingFacts(sent))
  }

  /** Fetches what the server holds again; a failure leaves what is shown. */
  async function refresh(): Promise<void> {
    const fetched = await checkins.read(checkinId).catch(() => null)
    if (fetched) facts.value = fetched
  }

  useLive(checkinId, {
    events: (events) => (taken.value = joinFacts(taken.value, heardFacts(events))),
    changed: () => void refresh(),
    discarded: () => (discarded.value = true),
  })

  function keep(fact: Pick<Waiting, 'id' | 'reading' | 'strike' | 'skip' | 'remark'>): void {
    taken.value = joinFacts(taken.value, waitingFacts([fact]))
    // A note leaves one where one is.
    if (fact.remark) picked.value = null
    else choose(null)
    const { id: staffId = '' } = me.me?.staff ?? {}
    const clientId = facts.value?.client.id ?? ''
    void outbox.put({ ...fact, checkinId, clientId, staffId, savedAt: Date.now() })
  }

  /** Commits a reading of the current cell, or of the site named. */
  function read(
    { value, unit }: Entered,
    source: Source,
    more: { site?: SiteId; method?: WayId } = {},
  ): Reading | null {
    const here = cell.value
    if (here.kind === 'none' && !more.site) return null
    const site = more.site ?? (here.kind === 'site' ? here.site : here.kind === 'height' ? 'height' : 'weight')
    const round = 1 + live.value.filter((reading) => reading.site === site).length
    const method = more.method ? { method: more.method } : {}
    const reading: Reading = { id: uuid(), site, round, value, unit, takenAt: now(), source, ...method }
    keep({ id: reading.id, reading })
    return reading
  }

  /** Now, but never before the newest reading: a clock that jumped back must not change the order. */
  function now(): string {
    const newest = live.value.at(-1)?.takenAt ?? ''
    const clock = new Date().toISOString()
    return clock > newest || newest > addDays(Date.now(), 1).toISOString()
      ? clock
      : new Date(Date.parse(newest) + 1).toISOString()
  }

  /** What striking would cross out now: the picked reading, or the newest. */
  const strikable = computed(() => live.value.find(({ id }) => id === picked.value) ?? live.value.at(-1) ?? null)

  function strikeNext(): void {
    if (strikable.value) strike(strikable.value)
  }

  /** Crosses a reading out. Its site stays the current one until it is read again. */
  function strike(reading: Reading): void {
    keep({ id: `strike-${reading.id}`, strike: { readingId: reading.id, struckAt: new Date().toISOString() } })
    chosen.value = reading.site
  }

  /** Strikes the newest reading of a site. */
  function strikeAt(site: SiteId): void {
    const reading = live.value.findLast((one) => one.site === site)
    if (reading) strike(reading)
  }

  /** Picks a reading of the sheet, to be struck with the next press; picking it again lets it go. */
  function pick(readingId: string): void {
    picked.value = picked.value === readingId ? null : readingId
  }

  /** Walks through the readings of the current cell: left from the open one to older ones, right back to it. */
  function pickBeside(by: 1 | -1): void {
    const own = live.value.filter((reading) => reading.site === place.value)
    const at = own.findIndex(({ id }) => id === picked.value)
    picked.value = own[(at === -1 ? own.length : at) + by]?.id ?? null
  }

  /** Moves the current cell to a row of the sheet; null: the next one in turn. */
  function choose(site: MeasureId | null): void {
    chosen.value = site
    typedAt.value = null
    picked.value = null
  }

  function move(by: 1 | -1): void {
    const rows = [
      ...(record.value?.studyId ? [] : ['weight' as const]),
      ...(record.value?.withHeight ? ['height' as const] : []),
      ...protocol.value.sites,
    ]
    const at = place.value === 'none' ? -1 : rows.indexOf(place.value)
    const next = rows[(at + by + rows.length) % rows.length]
    if (next) choose(next)
  }

  /** Leaves the weight out, or a site with its reason. */
  function leaveOut(why: Why | null): void {
    if (cell.value.kind === 'weight') {
      weightSkipped.value = true
      choose(null)
    } else if (cell.value.kind === 'site' && why) {
      const skip = { id: uuid(), site: cell.value.site, words: '', ...why, at: new Date().toISOString() }
      keep({ id: skip.id, skip })
    }
  }

  /** Writes a note at a reading. */
  function remark(readingId: string, words: string): void {
    const fact = { id: uuid(), readingId, words, at: new Date().toISOString() }
    keep({ id: fact.id, remark: fact })
  }

  return {
    facts,
    record,
    discarded,
    result,
    last,
    protocol,
    onWish,
    wish,
    cell,
    typing,
    heights,
    session,
    live,
    load,
    refresh,
    read,
    picked,
    strikable,
    pick,
    pickBeside,
    strikeNext,
    strikeAt,
    choose,
    move,
    leaveOut,
    remark,
  }
}
