import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { learnSet } from '#core/protocols'
import type { Units } from '#core/units'
import type { Habits, Me, OwnUnitsInput, StudioInput, StudioRules } from '#shared/schemas/account'
import type { StudioSet } from '#shared/schemas/set'
import { unitsOf } from '#shared/units-of'
import { problemOf } from '~/composables/useApi'
import { setStudioZone } from '~/composables/useDays'
import { forgetSent } from '~/storage/outbox-db'
import { isLeaving, noteLeaving } from '~/storage/leaving'
import { useOutbox } from '~/stores/outbox'
import { access, own, studios } from '~/calls'

/** Who is signed in, and the units they read in. */
export const useMe = defineStore('me', () => {
  const me = ref<Me | null>(null)

  const units = computed<Units>(() => (me.value ? unitsOf(me.value) : { mass: 'kg', length: 'cm' }))
  const isLead = computed(() => me.value?.staff.role === 'lead')
  /** Writes down what a coach reads out, and nothing else. */
  const isRecorder = computed(() => me.value?.staff.role === 'recorder')

  function take(found: Me): void {
    for (const set of found.sets) learnSet(set)
    me.value = found
    setStudioZone(found.studio.timeZone)
  }

  async function load(): Promise<void> {
    take(await own.read())
  }

  async function setOwnUnits(chosen: OwnUnitsInput): Promise<void> {
    take(await own.setUnits(chosen))
  }

  async function setHabits(habits: Habits): Promise<void> {
    take(await own.setHabits(habits))
  }

  async function offerEnergy(offered: boolean): Promise<void> {
    take(await studios.offerEnergy(offered))
  }

  async function setRules(rules: StudioRules): Promise<void> {
    take(await studios.setRules(rules))
  }

  /** Sets of sites as the server has them now. */
  function takeSets(sets: StudioSet[]): void {
    if (me.value) take({ ...me.value, sets })
  }

  async function changeStudio(studio: StudioInput): Promise<void> {
    take(await studios.change(studio))
  }

  /**
   * Empties this device of everything that belongs to whoever was signed in: kept answers and what has been sent. Facts
   * that have not reached the server stay, and show to nobody until somebody of the studio signs in.
   */
  async function emptyDevice(): Promise<void> {
    me.value = null
    useOutbox().hide()
    if (typeof caches !== 'undefined') await caches.delete('facts')
    await forgetSent()
  }

  /** Tells the server of a sign-out it could not hear. @returns whether it has been told of all */
  async function finishLeaving(): Promise<boolean> {
    if (!isLeaving()) return true
    try {
      await access.signOut()
      noteLeaving(false)
      return true
    } catch {
      return false
    }
  }

  /** Signs out here at once, with or without the server; the session there ends as soon as it can be told. */
  async function signOut(): Promise<void> {
    noteLeaving(true)
    await emptyDevice()
    await finishLeaving()
  }

  /** Signs in; a sign-out still to be told is told first. */
  async function signIn(body: { email: string; password: string; code?: string }): Promise<void> {
    await access.signIn(body)
    noteLeaving(false)
    await load()
    void useOutbox().sendAll()
  }

  /** Whether somebody is signed in here; asks the server when that is not known. Throws what it answers but 401. */
  async function isHere(): Promise<boolean> {
    if (isLeaving()) {
      await finishLeaving()
      return false
    }
    if (me.value) return true
    try {
      await load()
      return true
    } catch (error) {
      if (problemOf(error).status !== 401) throw error
      return false
    }
  }

  return {
    me,
    units,
    isLead,
    isRecorder,
    load,
    setOwnUnits,
    setHabits,
    changeStudio,
    setRules,
    takeSets,
    offerEnergy,
    signIn,
    signOut,
    isHere,
    emptyDevice,
    finishLeaving,
  }
})
