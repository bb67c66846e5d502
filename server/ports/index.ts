import { memoryAttempts, type Attempts } from './attempts'
import { memoryBus, type Bus } from './bus'
import type { PhotoStore } from './photo-store'
import type { MailPort } from './mail'
import { memoryShelf, type Shelf } from './shelf'

/**
 * What the application needs of the world beside its database. In memory or a folder by default; another adapter of the
 * same shape takes one's place at start, and nothing else changes.
 */
export interface Ports {
  bus: Bus
  shelf: Shelf
  attempts: Attempts
  photos: PhotoStore
  mail: MailPort
}

const NO_PHOTOS: PhotoStore = {
  put: () => Promise.reject(new Error('No place for photographs has been set.')),
  get: () => Promise.resolve(null),
  remove: () => Promise.resolve(),
  list: () => Promise.resolve([]),
}

const NO_MAIL: MailPort = {
  real: false,
  send: () => Promise.reject(new Error('No way for mail has been set.')),
  forget: () => Promise.resolve(),
}

const ports: Ports = {
  bus: memoryBus(),
  shelf: memoryShelf(),
  attempts: memoryAttempts(),
  photos: NO_PHOTOS,
  mail: NO_MAIL,
}

/** The ports of this process. */
export function usePorts(): Readonly<Ports> {
  return ports
}

/** Puts adapters in their places, at start. */
export function setPorts(adapters: Partial<Ports>): void {
  Object.assign(ports, adapters)
}
