import { useEventListener } from '@vueuse/core'

/** What the keyboard can do on the measuring screen. */
export interface MeasuringKeys {
  type: (sign: string) => void
  erase: () => void
  keep: () => void
  strikeLast: () => void
  note: () => void
  skip: () => void
  count: () => void
  blind: () => void
  move: (by: 1 | -1) => void
  /** Walks through the readings of the current site. */
  beside: (by: 1 | -1) => void
  inTurn: () => void
  help: () => void
  /** Takes the correction a warning proposes. */
  correct: () => void
  /** True while a dialog has the keyboard. */
  busy: () => boolean
}

/** A key pressed in a dialog is the dialog's, also when it closes it. */
function inDialog(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('[role="dialog"]') !== null
}

/** Focus on these means the key belongs to them. */
function ownsTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
}

function ownsEnter(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && /^(BUTTON|A)$/.test(target.tagName)
}

/** Binds the keyboard of the measuring screen, wherever the focus is. */
export function useMeasuringKeys(keys: MeasuringKeys): void {
  const byKey: Record<string, () => void> = {
    Backspace: keys.erase,
    Enter: keys.keep,
    u: keys.strikeLast,
    n: keys.note,
    k: keys.skip,
    t: keys.count,
    b: keys.blind,
    ArrowDown: () => keys.move(1),
    ArrowUp: () => keys.move(-1),
    ArrowRight: () => keys.beside(1),
    ArrowLeft: () => keys.beside(-1),
    Escape: keys.inTurn,
    '?': keys.help,
    c: keys.correct,
  }

  useEventListener('keydown', (event: KeyboardEvent) => {
    if (event.defaultPrevented || inDialog(event.target)) return
    if (keys.busy() || event.ctrlKey || event.metaKey || event.altKey || ownsTyping(event.target)) return
    if (event.key === 'Enter' && ownsEnter(event.target)) return
    // A held Enter or u must not commit or strike twice.
    if (event.repeat && event.key !== 'Backspace') return
    if (/^[0-9., /'"]$/.test(event.key) && !(event.key === ' ' && ownsEnter(event.target))) {
      event.preventDefault()
      keys.type(event.key)
      return
    }
    const action = byKey[event.key]
    if (!action) return
    event.preventDefault()
    action()
  })
}
