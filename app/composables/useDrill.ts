import { v7 as uuid } from 'uuid'
import { computed, ref } from 'vue'
import { DRILLS, learningCurve, nextLevel, type DrillId } from '#core/drills'
import type { DrillRound } from '#shared/schemas/drill'
import { drills } from '~/bench-calls'
import { problemOf } from '~/composables/useApi'

/** One's rounds of a drill: the level they lead to, and keeping another one. */
export function useDrill(drill: DrillId) {
  const rounds = ref<DrillRound[]>([])
  /** What went wrong with keeping a round: the round itself stays on the screen. */
  const problem = ref<string | null>(null)
  const own = computed(() => rounds.value.filter((round) => round.drill === drill))
  const scores = computed(() => own.value.map(({ score }) => score))
  const level = computed(() => {
    const last = own.value.at(-1)?.level ?? 1
    const atLevel = own.value.filter((round) => round.level === last).map(({ score }) => score)
    return nextLevel(drill, last, atLevel)
  })
  const now = computed(() => learningCurve(scores.value).at(-1) ?? null)

  async function load(): Promise<void> {
    rounds.value = await drills.rounds()
  }

  /** Keeps a round; without the server it counts on this page only. */
  async function keep(score: number, detail: Record<string, number | string> = {}): Promise<void> {
    const round = { id: uuid(), drill, level: level.value, score, detail, at: new Date().toISOString() }
    try {
      problem.value = null
      rounds.value = await drills.keep(round)
    } catch (error) {
      problem.value = `${problemOf(error).message} This round is not kept.`
      rounds.value = [...rounds.value, round]
    }
  }

  return { facts: DRILLS[drill], scores, level, now, problem, load, keep }
}
