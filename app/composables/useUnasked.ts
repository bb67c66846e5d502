import type { SaidUnasked } from '#core/following'
import { unaskedOf, type FollowedRecord } from '#shared/followed-record'

/** Rest after what was asked for has been shown, milliseconds. */
const REST = 250

/** What is said of a client unasked, worked out once the page stands; null until then. */
export function useUnasked(record: Ref<FollowedRecord | null>, judging: Ref<boolean>) {
  const said = shallowRef<SaidUnasked | null>(null)
  let due: ReturnType<typeof setTimeout> | undefined
  watch(
    [record, judging],
    ([held, waits]) => {
      clearTimeout(due)
      if (!held || waits) return
      due = setTimeout(() => (said.value = unaskedOf(held)), REST)
    },
    { immediate: true },
  )
  onScopeDispose(() => clearTimeout(due))
  return said
}
