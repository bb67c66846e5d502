/** Flags under which pages a client may see hold no percent, mass or weight. */
const NEUTRAL_FLAGS = ['eating-disorder', 'neutral-wish'] as const

/** Whether a client's own pages are neutral from the start. */
export function wantsNeutral(flags: readonly string[]): boolean {
  return NEUTRAL_FLAGS.some((flag) => flags.includes(flag))
}
