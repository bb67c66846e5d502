import { useStorage } from 'nitropack/runtime'

/** Where photographs lie: what server/plugins/database.ts has mounted. */
export function photoStorage() {
  return useStorage<Buffer>('photos')
}

/** The key of a photograph. */
export function photoKey(id: string): string {
  return `${id}.jpg`
}
