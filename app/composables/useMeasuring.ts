import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import { composeWith, type Composition } from '#core/composition/checkin'
import type { Equation } from '#core/equations/equation'
import { loadEquations } from '#core/equations/loaders'
import { joinLog, nextStep, type Reading, type Source, type Strike } from '#core/readings'
import { findProtocol, PROTOCOLS, type Protocol, type SiteId } from '#core/sites'
import type { MassUnit } from '#core/units'
import type { CheckinRecord, MeasuringFacts } from '#shared/schemas/checkin'
import type { Client } from '#shared/schemas/client'
import { useMe } from '~/stores/me'
import { useOutbox } from '~/stores/outbox'
import type { Waiting } from '~/stores/outbox-db'

/** What is to be entered now: the weight first, then fold after fold. */
export type Cell = { kind: 'weight' } | { kind: 'fold'; site: SiteId; round: number } | { kind: 'none' }

function protocolOf(record: Pick<CheckinRecord, 'protocolId'>): Protocol {
  return findProtocol(record.protocolId) ?? PROTOCOLS['laboratory-7']
}

function composed(
  equations: readonly Equation[],
  record: CheckinRecord,
  client: Client,
  readings: Reading[],
  strikes: Strike[],
): Composition {
  return composeWith(equations, {
    person: client,
    protocol: protocolOf(record),
    startedAt: record.startedAt,
    readings,
    strikes,
  })
}

/**
 * A running session: the server's facts joined with what this device has not sent yet, and the two things a coach does
 * to it, reading and striking. Everything shown is derived from the facts by core.
 */
export function useMeasuring(checkinId: string) {
  const me = useMe()
  const outbox = useOutbox()
  const facts = shallowRef<MeasuringFacts | null>(null)
  /** Only those this protocol feeds: the others need not load on the gym floor. */
  const equations = shallowRef<Equation[]>([])
  /** Facts of this visit to the page: they stay once the outbox has passed them on. */
  const taken = shallowRef<{ readings: Reading[]; strikes: Strike[] }>({ readings: [], strikes: [] })
  const weightSkipped = ref(false)
  const chosen = ref<SiteId | 'weight' | null>(null)
  /** A reading picked to be struck; null: striking takes the newest. */
  const picked = ref<string | null>(null)

  const record = computed(() => facts.value?.checkin ?? null)
  const held = computed(() => outbox.waiting.filter((fact) => fact.checkinId === checkinId && !fact.refused))
  const readings = computed(() => [
    ...(record.value?.readings ?? []),
    ...held.value.flatMap(({ reading }) => reading ?? []),
    ...taken.value.readings,
  ])
  const strikes = computed(() => [
    ...(record.value?.strikes ?? []),
    ...held.value.flatMap(({ strike }) => strike ?? []),
    ...taken.value.strikes,
  ])
  const result = computed(() =>
    facts.value && record.value
      ? composed(equations.value, record.value, facts.value.client, readings.value, strikes.value)
      : null,
  )
  const last = computed(() =>
    facts.value?.last
      ? composed(
          equations.value,
          facts.value.last,
          facts.value.client,
          facts.value.last.readings,
          facts.value.last.strikes,
        )
      : null,
  )
  const protocol = computed(() => protocolOf(record.value ?? { protocolId: '' }))

  const cell = computed<Cell>(() => {
    if (!result.value) return { kind: 'none' }
    if (chosen.value === 'weight') return { kind: 'weight' }
    if (chosen.value) {
      const row = result.value.session.sites.find(({ site }) => site === chosen.value)
      return { kind: 'fold', site: chosen.value, round: (row?.live.length ?? 0) + 1 }
    }
    if (result.value.weightKg === null && !weightSkipped.value) return { kind: 'weight' }
    const step = nextStep(result.value.session)
    return step.kind === 'measure' ? { kind: 'fold', site: step.site, round: step.round } : { kind: 'none' }
  })

  async function load(): Promise<void> {
    const [loaded] = await Promise.all([$fetch<MeasuringFacts>(`/api/checkins/${checkinId}`), outbox.load()])
    equations.value = await loadEquations(protocolOf(loaded.checkin).feeds)
    facts.value = loaded
    void outbox.sendAll()
  }

  function keep(fact: Pick<Waiting, 'id' | 'reading' | 'strike'>): void {
    const { reading, strike } = fact
    taken.value = {
      readings: reading ? [...taken.value.readings, reading] : taken.value.readings,
      strikes: strike ? [...taken.value.strikes, strike] : taken.value.strikes,
    }
    void outbox.put({ ...fact, checkinId, staffId: me.me?.staff.id ?? '', savedAt: Date.now() })
  }

  function read(value: Pick<Reading, 'site' | 'round' | 'value' | 'unit'>, source: Source): void {
    const reading: Reading = { id: uuid(), ...value, takenAt: new Date().toISOString(), source }
    chosen.value = null
    picked.value = null
    keep({ id: reading.id, reading })
  }

  /** Commits a fold to the current cell, mm. */
  function readFold(mm: number, source: Source): void {
    if (cell.value.kind !== 'fold') return
    read({ site: cell.value.site, round: cell.value.round, value: mm, unit: 'mm' }, source)
  }

  function readWeight(value: number, unit: MassUnit, source: Source): void {
    read({ site: 'weight', round: 1, value, unit }, source)
  }

  function strike(readingId: string): void {
    chosen.value = null
    picked.value = null
    keep({ id: `strike-${readingId}`, strike: { readingId, struckAt: new Date().toISOString() } })
  }

  const live = computed(() => joinLog(readings.value, strikes.value).filter(({ struck }) => !struck))
  /** What striking would cross out now: the picked reading, or the newest. */
  const strikable = computed(() => live.value.find(({ id }) => id === picked.value) ?? live.value.at(-1) ?? null)

  function strikeNext(): void {
    if (strikable.value) strike(strikable.value.id)
  }

  /** Picks a reading of the sheet, to be struck with the next press; picking it again lets it go. */
  function pick(readingId: string): void {
    picked.value = picked.value === readingId ? null : readingId
  }

  /** Walks through the readings of the current site: left from the open cell to older ones, right back to it. */
  function pickBeside(by: 1 | -1): void {
    const site = cell.value.kind === 'fold' ? cell.value.site : cell.value.kind === 'weight' ? 'weight' : null
    const own = live.value.filter((reading) => reading.site === site)
    const at = own.findIndex(({ id }) => id === picked.value)
    picked.value = own[(at === -1 ? own.length : at) + by]?.id ?? null
  }

  /** Moves the current cell: to a row of the sheet, or on to the next one after it. */
  function choose(site: SiteId | 'weight' | null): void {
    chosen.value = site
    picked.value = null
  }

  function move(by: 1 | -1): void {
    const rows = ['weight' as const, ...protocol.value.sites]
    const here = cell.value.kind === 'fold' ? rows.indexOf(cell.value.site) : cell.value.kind === 'weight' ? 0 : -1
    const next = rows[(here + by + rows.length) % rows.length]
    if (next) choose(next)
  }

  function skip(): void {
    if (cell.value.kind === 'weight') {
      weightSkipped.value = true
      chosen.value = null
    } else move(1)
  }

  return {
    facts,
    record,
    result,
    last,
    protocol,
    cell,
    readings,
    strikes,
    load,
    readFold,
    readWeight,
    picked,
    strikable,
    pick,
    pickBeside,
    strikeNext,
    choose,
    move,
    skip,
  }
}
