import { shallowRef } from 'vue'
import { forgetDeviceKey } from '~/storage/device-key'
import { noteLocked } from '~/storage/lock-marks'

/** Pages where nobody is signed in: they do not lock. */
export const isOutside = (path: string) => /^\/(sign-in|welcome|new-password|hand-in|stop|board)/.test(path)

const locked = shallowRef(false)

/** Whether this page is locked: it shows nothing of the studio's until somebody opens it. */
export const isLocked = () => locked.value

/**
 * Locks this page, and others of this device as soon as they look. Every way into the lock leads through here, because the
 * key leaves the device: without it nothing that is kept here can be read, with or without the server.
 */
export function lockPage(): Promise<void> {
  locked.value = true
  noteLocked(true)
  return forgetDeviceKey({ all: false })
}

/** Opens this page, and lets others of this device open. */
export function openPage(): void {
  locked.value = false
  noteLocked(false)
}

/** Another page of this device was locked: so is this one. */
export function followLock(): Promise<void> {
  locked.value = true
  return forgetDeviceKey({ all: false })
}
