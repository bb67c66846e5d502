import { shallowRef } from 'vue'
import { noteLocked } from '~/storage/lock-marks'

/** Pages nobody is signed in at: no lock stands before them. */
export const isOutside = (path: string) => /^\/(sign-in|welcome|new-password|hand-in|stop|board)/.test(path)

const locked = shallowRef(false)

/** Whether this page is locked: it shows nothing of the studio's until somebody opens it. */
export const isLocked = () => locked.value

/** Locks this page, and others of this device as soon as they look. */
export function lockPage(): void {
  locked.value = true
  noteLocked(true)
}

/** Opens this page, and lets others of this device open. */
export function openPage(): void {
  locked.value = false
  noteLocked(false)
}

/** Another page of this device was locked: so is this one. */
export function followLock(): void {
  locked.value = true
}
