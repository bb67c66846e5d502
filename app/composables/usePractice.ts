import { useIntervalFn } from '@vueuse/core'
import { v7 as uuid } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import { drawClient, jawsShow, liftFold, scorePractice, type Hard, type Lift, type StandInClient } from '#core/drills'
import { nextStep, sessionState, valueOf, type Reading, type Strike } from '#core/readings'
import { PROTOCOLS } from '#core/protocols'
import { seededRandom } from '#core/simulate'
import { SITES, type SiteId } from '#core/sites'
import { markOf, type SheetRow } from '~/components/measure/sheet'
import type { Cell, Entered } from '~/composables/useMeasuring'

/** Practised on the seven folds of the laboratory school. */
const PROTOCOL = PROTOCOLS['laboratory-7']
const TICK_MS = 80

/** A session on an invented client: the same reading rules as a real one, and nothing of it is stored. */
export function usePractice() {
  const random = seededRandom(Date.now())
  const client = shallowRef<StandInClient | null>(null)
  const readings = shallowRef<Reading[]>([])
  const strikes = shallowRef<Strike[]>([])
  const moved = shallowRef<ReadonlySet<string>>(new Set())
  const chosen = ref<SiteId | null>(null)
  const picked = ref<string | null>(null)
  const lift = shallowRef<Lift | null>(null)
  const liftedAt = ref(0)
  /** What the jaws show, mm; null: not on a fold. */
  const shown = ref<number | null>(null)
  /** Seconds at the caliper, by reading. */
  const seconds = ref<number[]>([])

  const session = computed(() => sessionState(PROTOCOL, readings.value, strikes.value))
  const cell = computed<Cell>(() => {
    const rows = session.value.sites
    if (chosen.value) {
      const row = rows.find(({ site }) => site === chosen.value)
      return { kind: 'site', site: chosen.value, round: (row?.live.length ?? 0) + 1 }
    }
    const step = nextStep(session.value)
    return step.kind === 'measure' ? { kind: 'site', site: step.site, round: step.round } : { kind: 'none' }
  })
  const site = computed(() => (cell.value.kind === 'site' ? cell.value.site : null))
  const rows = computed<SheetRow[]>(() =>
    session.value.sites.map((state) => ({
      site: SITES[state.site],
      state,
      last: null,
      mark: markOf(state, site.value, null),
    })),
  )
  const here = computed(() =>
    Object.fromEntries(
      session.value.sites.flatMap(({ site: one, live }) => {
        const newest = live.at(-1)
        return newest ? [[one, valueOf(newest)]] : []
      }),
    ),
  )

  const { pause, resume } = useIntervalFn(
    () => {
      if (!client.value || !lift.value) return
      const after = (performance.now() - liftedAt.value) / 1000
      shown.value = Math.round(jawsShow(lift.value, client.value, after) * 2) / 2
    },
    TICK_MS,
    { immediate: false },
  )

  function begin(hard: Hard): void {
    client.value = drawClient(random, PROTOCOL, hard)
    readings.value = []
    strikes.value = []
    moved.value = new Set()
    seconds.value = []
    chosen.value = null
    letGo()
  }

  /** Lifts the fold of the current cell; again: another lift. */
  function pinch(): void {
    if (!client.value || !site.value) return
    lift.value = liftFold(random, client.value, site.value)
    liftedAt.value = performance.now()
    resume()
  }

  function letGo(): void {
    pause()
    lift.value = null
    shown.value = null
  }

  function commit({ value }: Entered, source: Reading['source'], at = site.value): void {
    if (!at) return
    const round = 1 + (session.value.sites.find((row) => row.site === at)?.live.length ?? 0)
    const reading: Reading = {
      id: uuid(),
      site: at,
      round,
      value,
      unit: 'mm',
      takenAt: new Date().toISOString(),
      source,
    }
    if (lift.value) {
      seconds.value = [...seconds.value, (performance.now() - liftedAt.value) / 1000]
      if (lift.value.moved) moved.value = new Set([...moved.value, reading.id])
    }
    readings.value = [...readings.value, reading]
    chosen.value = null
    picked.value = null
    letGo()
  }

  function strike(reading: Reading): void {
    strikes.value = [...strikes.value, { readingId: reading.id, struckAt: new Date().toISOString() }]
    chosen.value = reading.site as SiteId
    picked.value = null
  }
  const live = computed(() => session.value.sites.flatMap((row) => row.live))
  const strikable = computed(
    () =>
      live.value.find(({ id }) => id === picked.value) ??
      readings.value.findLast(({ id }) => live.value.some((one) => one.id === id)) ??
      null,
  )
  const strikeAt = (at: SiteId) => {
    const newest = session.value.sites.find((row) => row.site === at)?.live.at(-1)
    if (newest) strike(newest)
  }

  const score = computed(() =>
    client.value && session.value.complete
      ? scorePractice(client.value, PROTOCOL, readings.value, strikes.value, moved.value)
      : null,
  )
  return {
    client,
    session,
    rows,
    cell,
    here,
    shown,
    seconds,
    score,
    picked,
    strikable,
    begin,
    pinch,
    commit,
    strike,
    strikeAt,
    choose: (at: SiteId) => {
      chosen.value = at
      letGo()
    },
  }
}
