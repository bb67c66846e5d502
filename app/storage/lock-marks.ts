const LOCKED = 'oak-pinch-locked'
const MINUTES = 'oak-pinch-lock-minutes'
const TOUCHED = 'oak-pinch-touched'
/** That a device is used is written down so often at most, milliseconds. */
const WRITTEN_EVERY_MS = 5_000

/** What this page knows where there is no plain storage. */
const here = { locked: false, minutes: 0, touched: Date.now(), written: 0 }

function read(key: string): string | null {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}

function write(key: string, value: string | null): void {
  try {
    if (value === null) localStorage.removeItem(key)
    else localStorage.setItem(key, value)
  } catch {
    // It then holds while this page is open.
  }
}

/** Whether this device was locked, by this page or another one, and not opened since. */
export const isLockedHere = () => here.locked || read(LOCKED) !== null

/** Notes that this device is locked, or open again. */
export function noteLocked(locked: boolean): void {
  here.locked = locked
  write(LOCKED, locked ? '1' : null)
  if (!locked) noteTouched(true)
}

/** Minutes after which nobody touching this device locks it; 0: never. Kept, so that a page opened much later knows. */
export function noteLockMinutes(minutes: number): void {
  here.minutes = minutes
  write(MINUTES, minutes > 0 ? String(minutes) : null)
  if (minutes > 0 && read(TOUCHED) === null) noteTouched(true)
}

/** Somebody uses this device: by finger, keys, or an instrument. */
export function noteTouched(now = false): void {
  here.touched = Date.now()
  if (!now && here.touched - here.written < WRITTEN_EVERY_MS) return
  here.written = here.touched
  write(TOUCHED, String(here.touched))
}

/** Whether nobody has touched this device, in any of its pages, for as long as its studio says. */
export function isLeft(now = Date.now()): boolean {
  const minutes = here.minutes || Number(read(MINUTES) ?? 0)
  if (!(minutes > 0)) return false
  const touched = Math.max(Number(read(TOUCHED) ?? 0), here.written === 0 ? 0 : here.touched)
  return now - touched > minutes * 60_000
}
