import { computed, ref, shallowRef } from 'vue'
import { v7 as uuid } from 'uuid'
import { lengthToCm, type LengthUnit } from '#core/units'
import { asksAnother, HOME_GIRTHS } from '#core/home'
import type { GirthSiteId } from '#core/sites'
import type { ClientHome } from '#shared/schemas/link'
import { POSES, type Pose } from '#shared/schemas/photo'
import { home as calls } from '~/home-calls'
import { everythingWaits } from '~/storage/deliver'
import { emptyHandIn, handInDatabase as db, type Delivery, type Draft, type DraftPicture } from '~/storage/hand-in-db'

const AGAIN_MS = 15_000

/** A number as people type it, with a point or a comma; null: none. */
export function typedNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.')
  return /^\d{1,4}(\.\d{0,2})?$/.test(plain) ? Number(plain) : null
}

function freshDraft(day: string, unit: LengthUnit): Draft {
  return { key: 'draft', id: uuid(), day, girths: {}, unit, conditions: {}, fit: null, words: '' }
}

/** A client's phone: what the server knows, the week under way, and what waits to be sent; each goes out exactly once. */
export function useHandIn() {
  const home = shallowRef<ClientHome | null>(null)
  const draft = ref<Draft | null>(null)
  const pictures = shallowRef<DraftPicture[]>([])
  const waiting = shallowRef<Delivery[]>([])
  const offline = ref(false)
  /** Why the phone is not let in, in a sentence; null: it is. */
  const shut = ref<string | null>(null)
  const sending = ref(false)

  async function take(found: ClientHome): Promise<void> {
    home.value = found
    await db.kept.put({ key: 'home', home: found })
  }
  async function readWaiting(): Promise<void> {
    waiting.value = await db.deliveries.orderBy('at').toArray()
  }

  /** Whether an answer says that nobody is let in here any more. */
  function isShut(error: unknown): boolean {
    const { status, message } = problemOf(error)
    offline.value = everythingWaits(status) && status !== 401
    if (status === 401) shut.value = message
    return status === 401
  }

  /** What this phone knows by itself, then what the server says. */
  async function load(): Promise<void> {
    home.value = (await db.kept.get('home'))?.home ?? null
    draft.value = (await db.drafts.get('draft')) ?? null
    pictures.value = await db.pictures.toArray()
    await readWaiting()
    try {
      await take(await calls.read())
      shut.value = null
      offline.value = false
    } catch (error) {
      if (!isShut(error) && !home.value) offline.value = true
    }
    void deliver()
  }

  async function send(one: Delivery): Promise<void> {
    switch (one.kind) {
      case 'weigh-in':
        return take((await calls.weigh(one.weighIn)).home)
      case 'week':
        return take(await calls.handIn(one.week))
      case 'photo':
        await calls.addPhoto(one.photo, one.picture)
    }
  }

  /** Sends what waits, in order. What the server refuses steps aside with its sentence; everything else waits its turn. */
  async function deliver(): Promise<void> {
    if (sending.value) return
    sending.value = true
    let sent = false
    try {
      for (const one of await db.deliveries.orderBy('at').toArray()) {
        if (one.refused) continue
        try {
          await send(one)
          await db.deliveries.delete(one.id)
          offline.value = false
          sent ||= one.kind === 'photo'
        } catch (error) {
          const { status, message } = problemOf(error)
          if (isShut(error) || everythingWaits(status) || status >= 500) {
            offline.value = status !== 401
            break
          }
          await db.deliveries.put({ ...one, refused: message })
        }
        await readWaiting()
      }
      // Pictures answer with nothing: what the phone shows is asked for anew.
      if (sent) await calls.read().then(take, isShut)
    } finally {
      sending.value = false
    }
  }
  useEventListener('online', () => void deliver())
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'visible' && void deliver())
  useIntervalFn(() => waiting.value.some(({ refused }) => !refused) && void deliver(), AGAIN_MS)

  async function queue(...all: Delivery[]): Promise<void> {
    await db.deliveries.bulkPut(all)
    await readWaiting()
    void deliver()
  }

  /** Days that hold a weigh-in, those still on their way included. */
  const weighed = computed(() => {
    const days = new Set(home.value?.weighIns.map(({ day }) => day) ?? [])
    for (const one of waiting.value) if (one.kind === 'weigh-in' && !one.refused) days.add(one.weighIn.day)
    return days
  })
  const lastKg = computed(() => home.value?.weighIns.at(-1)?.kg ?? null)

  async function weigh(value: number, unit: 'kg' | 'lb', day: string): Promise<void> {
    const id = uuid()
    await queue({ id, at: Date.now(), kind: 'weigh-in', weighIn: { id, day, value, unit } })
  }

  async function begin(): Promise<void> {
    draft.value ??= freshDraft(today(), home.value?.units.length ?? 'cm')
    await keepDraft()
  }
  const keepDraft = async () =>
    void (draft.value && (await db.drafts.put(JSON.parse(JSON.stringify(draft.value)) as Draft)))
  /** Today where the studio is; without a network, on this phone. */
  const today = () => (offline.value || !home.value ? todayHere() : home.value.today)

  async function keepPicture(pose: Pose, picture: Blob | null): Promise<void> {
    if (picture) await db.pictures.put({ pose, picture, takenAt: new Date().toISOString() })
    else await db.pictures.delete(pose)
    pictures.value = await db.pictures.toArray()
  }

  const sites = computed<readonly GirthSiteId[]>(() => home.value?.sites ?? HOME_GIRTHS)
  /** What is typed for a place, in cm, in order; what is no number is left out. */
  function readings(site: GirthSiteId): number[] {
    const unit = draft.value?.unit ?? 'cm'
    return (draft.value?.girths[site] ?? []).flatMap((text) => {
      const value = typedNumber(text)
      return value === null ? [] : [lengthToCm(value, unit)]
    })
  }
  const isDone = (site: GirthSiteId) => readings(site).length > 0 && !asksAnother(readings(site))

  /** Hands the week in: it and its pictures go out as soon as there is a network. */
  async function handIn(): Promise<void> {
    const week = draft.value
    if (!week) return
    const girths = sites.value.flatMap((site) =>
      (week.girths[site] ?? []).flatMap((text, i) => {
        const value = typedNumber(text)
        return value === null ? [] : [{ id: uuid(), site, trial: i + 1, value, unit: week.unit }]
      }),
    )
    const { id, day, conditions, fit, words } = week
    const at = Date.now()
    const deliveries: Delivery[] = [
      { id, at, kind: 'week', week: { id, day, conditions: { ...conditions }, fit, words, girths } },
      ...pictures.value.map(({ pose, takenAt, picture }, i): Delivery => {
        const own = uuid()
        return { id: own, at: at + 1 + i, kind: 'photo', photo: { id: own, handInId: id, pose, takenAt }, picture }
      }),
    ]
    // All or nothing on the phone: a week is never half in the queue.
    await db.transaction('rw', db.deliveries, db.drafts, db.pictures, async () => {
      await db.deliveries.bulkPut(deliveries)
      await db.drafts.clear()
      await db.pictures.clear()
    })
    draft.value = null
    pictures.value = []
    await readWaiting()
    void deliver()
  }

  /** Takes back what was refused: a week becomes the draft again, with everything typed. */
  async function takeBack(one: Delivery): Promise<void> {
    await db.deliveries.delete(one.id)
    if (one.kind === 'week') {
      const { id: _, day, conditions, fit, words, girths } = one.week
      const typed: Record<string, string[]> = {}
      for (const { site, value } of girths) (typed[site] ??= []).push(String(value))
      draft.value = { ...freshDraft(day, girths[0]?.unit ?? 'cm'), conditions, fit, words, girths: typed }
      await keepDraft()
      for (const other of waiting.value) {
        if (other.kind !== 'photo' || other.photo.handInId !== one.week.id) continue
        await db.pictures.put({ pose: other.photo.pose, takenAt: other.photo.takenAt, picture: other.picture })
        await db.deliveries.delete(other.id)
      }
      pictures.value = await db.pictures.toArray()
    }
    await readWaiting()
  }

  async function leave(): Promise<void> {
    await calls.leave().catch(() => undefined)
    await emptyHandIn()
    home.value = null
    waiting.value = []
    shut.value = 'This phone is signed out. Open the link again to come back.'
  }

  return {
    home,
    draft,
    pictures,
    waiting,
    offline,
    shut,
    sites,
    poses: POSES,
    weighed,
    lastKg,
    load,
    deliver,
    weigh,
    begin,
    keepDraft,
    today,
    keepPicture,
    readings,
    isDone,
    handIn,
    takeBack,
    leave,
    stopReminders: async () => take(await calls.stopReminders()),
    leaveChallenge: async (entryId: string) => take(await calls.leaveChallenge(entryId)),
  }
}

/** A client's phone, as its screens are given it. */
export type HandIn = ReturnType<typeof useHandIn>
