import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath, pathToFileURL } from 'node:url'
import type { z } from 'zod'

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

/** A route as its source tells it: how it is asked, and what schema its body or its question passes. */
export interface FoundRoute {
  method: string
  /** Parts of the path; null: an id. */
  parts: (string | null)[]
  body: z.ZodType | null
  query: z.ZodType | null
}

/** The schema a call in a route's source names, from where the source imports it. */
async function namedIn(source: string, file: string, call: RegExp): Promise<z.ZodType | null> {
  const name = call.exec(source)?.[1]
  if (!name) return null
  for (const [, names = '', from = ''] of source.matchAll(/import \{([^}]*)\} from '([^']+)'/g)) {
    if (!names.split(',').some((one) => one.trim() === name)) continue
    const found = (await import(new URL(`${from}.ts`, pathToFileURL(`${API}/${file}`)).href)) as Record<string, unknown>
    return found[name] as z.ZodType
  }
  return null
}

/** Every API route with its schemas, found in the sources: a new one is there by itself. */
export async function routesWithSchemas(): Promise<FoundRoute[]> {
  const files = readdirSync(API, { recursive: true, encoding: 'utf8' }).filter(
    (file) => file.endsWith('.ts') && !file.startsWith('[...]'),
  )
  return Promise.all(
    files.sort().map(async (file) => {
      const [, path = '', method = 'get'] = /^(.*?)(?:\.(get|post|patch|put|delete))?\.ts$/.exec(file) ?? []
      const source = readFileSync(`${API}/${file}`, 'utf8')
      return {
        method: method.toUpperCase(),
        parts: ['api', ...path.split('/').filter((part) => part !== 'index')].map((part) =>
          part.startsWith('[') ? null : part,
        ),
        body: await namedIn(source, file, /readJson\(event, (\w+)/),
        query: await namedIn(source, file, /parsed\((\w+), getQuery\(event\)/),
      }
    }),
  )
}
