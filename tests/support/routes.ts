import { readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const API = fileURLToPath(new URL('../../server/api', import.meta.url))

/** Every API route of the source tree, as "METHOD /api/path" with ids filled in. */
export function allRoutes(id: string): string[] {
  return readdirSync(API, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.startsWith('[...]'))
    .map((file) => {
      const [, path = '', method = 'get'] = /^(.*?)(?:\.(get|post|patch|put|delete))?\.ts$/.exec(file) ?? []
      return `${method.toUpperCase()} /api/${path.replace(/\/?index$/, '').replace(/\[\w+\]/g, id)}`
    })
    .map((route) => route.replace(/\/$/, ''))
}
