import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
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
import type { ProvedByPasskey } from '#shared/schemas/passkey'
import { isLocked, lockPage, openPage } from '~/locking'
import { forgetDeviceKey, forgetPinHere, isKeyed, persistKey, rememberPin, takeDeviceKey } from '~/storage/device-key'
import { noteLockMinutes } from '~/storage/lock-marks'
import { access, locks, own, studios } from '~/calls'
import { noteSomebody } from '~/signed-out'

/** Who is signed in, and the units they read in. */
export const useMe = defineStore('me', () => {
  const me = ref<Me | null>(null)
  watch(me, (found) => noteSomebody(found !== null), { flush: 'sync' })

  const units = computed<Units>(() => (me.value ? unitsOf(me.value) : { mass: 'kg', length: 'cm' }))
  const isLead = computed(() => me.value?.staff.role === 'lead')
  /** Writes down what a coach reads out, and nothing else. */
  const isRecorder = computed(() => me.value?.staff.role === 'recorder')

  function take(found: Me): void {
    for (const set of found.sets) learnSet(set)
    me.value = found
    noteLockMinutes(found.rules.lockMinutes)
    setStudioZone(found.studio.timeZone)
  }

  /** Asks for the key this device seals with. Without one, or without the server, what is kept lies as it is. */
  async function learnKey(): Promise<void> {
    try {
      const { key } = await own.deviceKey()
      await takeDeviceKey(key)
    } catch (error) {
      console.warn('No key for this device:', problemOf(error).message)
    }
  }

  async function load(): Promise<void> {
    // Before anything else is kept on this device.
    if (!isKeyed()) await learnKey()
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
    await forgetDeviceKey({ all: true })
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
  async function signIn(by: { email: string; password: string; code?: string } | ProvedByPasskey): Promise<void> {
    await ('email' in by ? access.signIn(by) : access.signInByPasskey(by))
    noteLeaving(false)
    openPage()
    await learnKey()
    await load()
    void useOutbox().sendAll()
  }

  /** This page stays whole for whoever locked it and opens it again: the key is put back, and what waits goes out. */
  async function goOn(): Promise<void> {
    openPage()
    await persistKey()
    void learnKey()
    void useOutbox().sendAll()
  }

  /** Another page of this device was opened: by whoever this one is of, or by somebody else, who sees nothing of it. */
  async function followOpened(): Promise<void> {
    const before = me.value?.staff.id
    const found = await own.read().catch(() => null)
    if (before && found?.staff.id === before) return goOn()
    await emptyDevice()
    location.replace('/')
  }

  /** Locks this device: the key leaves it, and the server answers nothing more until somebody opens it. */
  async function lock(): Promise<void> {
    if (isLocked()) return
    await lockPage()
    // Cut off, it is locked by the page alone until the server can be told.
    await locks.lock().catch(() => undefined)
  }

  async function setPin(pin: string | null): Promise<void> {
    take(await (pin === null ? own.removePin() : own.setPin(pin)))
    if (pin === null) forgetPinHere()
    else rememberPin(pin)
  }

  async function knowSession(id: string): Promise<void> {
    take(await own.knowSession(id))
  }

  /** The question who is signed in, while it is under way. */
  let asking: Promise<boolean> | null = null

  /** Whether somebody is signed in here; asks the server when that is not known. Throws what it answers but 401. */
  function isHere(): Promise<boolean> {
    asking ??= askWhoIsHere().finally(() => (asking = null))
    return asking
  }

  async function askWhoIsHere(): Promise<boolean> {
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
    lock,
    goOn,
    followOpened,
    setPin,
    knowSession,
    isHere,
    emptyDevice,
    finishLeaving,
  }
})
