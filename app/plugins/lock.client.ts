import { followLock, isLocked, isOutside } from '~/locking'
import { readyDeviceKey } from '~/storage/device-key'
import { isLeft, isLockedHere, noteTouched } from '~/storage/lock-marks'
import { useMe } from '~/stores/me'

const LOOK_EVERY_MS = 2_000
/** A page has been drawn by then. */
const READY_AFTER_MS = 3_000

/** Nobody touches a device for as long as its studio says: it locks. What one of its pages does, the others follow. */
export default defineNuxtPlugin(() => {
  const look = () => {
    if (!isOutside(location.pathname) && !isLocked() && isLeft()) void useMe().lock()
  }
  // A page opened after the device was left: before anything of it shows.
  look()
  useTimeoutFn(readyDeviceKey, READY_AFTER_MS)
  useIntervalFn(look, LOOK_EVERY_MS)
  useEventListener(document, 'visibilitychange', look)
  useEventListener(window, ['pointerdown', 'keydown', 'wheel'], () => !isLocked() && noteTouched(), {
    passive: true,
    capture: true,
  })
  useEventListener(window, 'storage', ({ key }: StorageEvent) => {
    if (key !== 'oak-pinch-locked' || isOutside(location.pathname)) return
    if (isLockedHere()) void followLock()
    else void useMe().followOpened()
  })
})
