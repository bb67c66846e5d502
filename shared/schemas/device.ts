import { z } from 'zod'

/** Digits that run: up or down by one, or all the same. */
function runs(digits: string): boolean {
  const steps = [...digits].slice(1).map((digit, i) => Number(digit) - Number(digits[i]))
  return [0, 1, -1].some((step) => steps.every((one) => one === step))
}

const digits = z.string({ error: 'Four to eight digits.' }).regex(/^\d{4,8}$/, 'Four to eight digits.')

/** A PIN of one's own for locked devices. */
export const pinInput = z.strictObject({
  pin: digits.refine((pin) => !runs(pin), 'This is the first anybody tries: please choose digits that do not run.'),
})

/** Who goes on at a locked device. */
export const openLockInput = z.strictObject({ staffId: z.uuid('There is no such person here.'), pin: digits })

/** Somebody who can open a locked device. */
export interface LockPerson {
  id: string
  name: string
  /** Without one they sign in with their password. */
  hasPin: boolean
}

/** A device that is locked, or may be. */
export interface LockState {
  /** ISO instant; null: it is open. */
  lockedAt: string | null
  /** Whose session it is. */
  staffId: string
  /** Who has signed in on this device, that person first. */
  people: LockPerson[]
}

/** The key a device seals with what it keeps; only for people who are signed in. */
export interface DeviceKeyAnswer {
  /** 256 bits, base64. */
  key: string
}

/** A sign-in on a device its person did not know. */
export interface StrangeSignIn {
  id: string
  device: string
  startedAt: string
}
