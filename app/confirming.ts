import { shallowRef } from 'vue'

/** Whoever waits for its person to prove who they are; null: nobody. */
const waiting = shallowRef<((confirmed: boolean) => void) | null>(null)
let asking: Promise<boolean> | null = null

/** Whether a proof is asked for now. */
export const isAsked = () => waiting.value !== null

/** Asks for a proof of who it is; several that ask at once share one. @returns whether it was given */
export function askToConfirm(): Promise<boolean> {
  asking ??= new Promise<boolean>((done) => {
    waiting.value = (confirmed) => {
      waiting.value = null
      asking = null
      done(confirmed)
    }
  })
  return asking
}

/** Ends the asking. */
export function answerConfirming(confirmed: boolean): void {
  waiting.value?.(confirmed)
}
