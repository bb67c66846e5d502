import { subWeeks } from 'date-fns'
import type { FollowedEnd } from '#shared/following'

/** Spans that are often asked for, as places of their two check-ins. */
export function useShortcuts(of: { ends: Ref<readonly FollowedEnd[]>; pinned: Ref<number>; planStart: Ref<number> }) {
  return computed(() => {
    const instants = of.ends.value.map(({ record }) => record.startedAt)
    const last = instants.length - 1
    const wanted = +subWeeks(instants[last] ?? '', 12)
    const distance = (at: string) => Math.abs(Date.parse(at) - wanted)
    const nearest = instants.reduce((best, at, i) => (distance(at) < distance(instants[best] ?? '') ? i : best), 0)
    const all = [
      { name: 'Since last time', from: last - 1 },
      { name: 'Twelve weeks', from: Math.min(nearest, last - 1) },
      { name: 'From the chosen start', from: of.pinned.value },
      ...(of.pinned.value > 0 ? [{ name: 'From the first', from: 0 }] : []),
      ...(of.planStart.value >= 0 ? [{ name: 'From the plan’s start', from: of.planStart.value }] : []),
    ]
    return all.map((one) => ({ ...one, to: last })).filter(({ from, to }) => from >= 0 && from < to)
  })
}
