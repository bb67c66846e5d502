import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './prepare.mjs'

const FOLDERS = ['server/api', 'server/routes']
const DECLARED = /^export default defineRoute\(\s*\{([^{}]*)\}\s*,/m
const PAIR = /^\s*(\w+):\s*(?:'([^']*)'|(true|false))\s*$/

/** A declaration as it stands in the source; null where it is missing or no plain literal. */
function accessIn(source) {
  const written = DECLARED.exec(source)?.[1]
  if (written === undefined) return null
  const pairs = written
    .split(',')
    .filter((one) => one.trim() !== '')
    .map((one) => PAIR.exec(one))
  if (pairs.length === 0 || pairs.some((pair) => pair === null)) return null
  return Object.fromEntries(pairs.map((pair) => [pair?.[1], pair?.[3] ? pair[3] === 'true' : pair?.[2]]))
}

function routeOf(folder, file) {
  const [, path = '', method = 'get'] = /^(.*?)(?:\.(get|post|patch|put|delete))?\.ts$/.exec(file) ?? []
  const parts = path.split('/').filter((part) => part !== 'index')
  return {
    method: method.toUpperCase(),
    /** Parts of the path; null: a parameter. */
    parts: [...(folder === 'server/api' ? ['api'] : []), ...parts].map((part) => (part.startsWith('[') ? null : part)),
  }
}

/**
 * Every route of the source tree with what it declares (server/http/route.ts).
 * @returns {{ file: string, method: string, parts: (string | null)[], access: Record<string, string | boolean> }[]}
 * @throws Error that names every route without a declaration: the application does not build with one
 */
export function declaredRoutes(root = ROOT) {
  const found = FOLDERS.filter((folder) => existsSync(join(root, folder))).flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('.ts'))
      .sort()
      .map((file) => ({
        file: `${folder}/${file}`,
        ...routeOf(folder, file),
        access: accessIn(readFileSync(join(root, folder, file), 'utf8')),
      })),
  )
  const silent = found.filter(({ access }) => access === null).map(({ file }) => file)
  if (silent.length > 0)
    throw new Error(
      `These routes do not declare who may use them (export default defineRoute({ access: … }, …)): ${silent.join(', ')}`,
    )
  return found.map((one) => ({ ...one, access: one.access ?? {} }))
}
