import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Units } from '#core/units'
import type { Habits, Me, OwnUnitsInput, StudioInput } from '#shared/schemas/account'
import { unitsOf } from '#shared/units-of'

/** Who is signed in, and the units they read in. */
export const useMe = defineStore('me', () => {
  const me = ref<Me | null>(null)

  const units = computed<Units>(() => (me.value ? unitsOf(me.value) : { mass: 'kg', length: 'cm' }))

  async function load(): Promise<void> {
    me.value = await $fetch<Me>('/api/me')
  }

  async function setOwnUnits(own: OwnUnitsInput): Promise<void> {
    me.value = await $fetch<Me>('/api/me', { method: 'PATCH', body: own })
  }

  async function setHabits(habits: Habits): Promise<void> {
    me.value = await $fetch<Me>('/api/me/habits', { method: 'PUT', body: habits })
  }

  async function changeStudio(studio: StudioInput): Promise<void> {
    me.value = await $fetch<Me>('/api/studio', { method: 'PATCH', body: studio })
  }

  /** What was kept for working without the network belongs to the person who was signed in. */
  async function forgetKept(): Promise<void> {
    if (typeof caches !== 'undefined') await caches.delete('facts')
  }

  async function signOut(): Promise<void> {
    await $fetch('/api/sign-out', { method: 'POST' })
    await forgetKept()
    me.value = null
  }

  return { me, units, load, setOwnUnits, setHabits, changeStudio, signOut, forgetKept }
})
