import { v7 as uuid } from 'uuid'
import { ref } from 'vue'
import type { StartCheckinInput } from '#shared/schemas/checkin'

/** Starts a check-in as prepared, or goes to the one already open. */
export function useStartCheckin() {
  const router = useRouter()
  const problem = ref<string | null>(null)
  const starting = ref(false)

  async function start(clientId: string, prepared: Omit<StartCheckinInput, 'id' | 'startedAt'>): Promise<void> {
    if (starting.value) return
    starting.value = true
    problem.value = null
    try {
      const { id } = await $fetch<{ id: string }>(`/api/clients/${clientId}/checkins`, {
        method: 'POST',
        body: { id: uuid(), startedAt: new Date().toISOString(), ...prepared },
      })
      await router.push(`/measure/${id}`)
    } catch (error) {
      problem.value = problemOf(error).message
    } finally {
      starting.value = false
    }
  }

  return { start, problem, starting }
}
