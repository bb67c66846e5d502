import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative, resolve } from 'node:path'
import { describe, expect, it } from 'vitest'

const CORE = resolve(import.meta.dirname, '../../core')

/** The folders of core from the ground up: each may import itself and what stands above it in this list. */
const ORDER = [
  ['calendar', 'units'],
  ['sites'],
  ['readings'],
  ['protocols', 'devices'],
  ['equations'],
  ['simulate', 'cautions'],
  ['norms', 'error', 'safety'],
  ['study', 'drills'],
  ['trend', 'schedule'],
  ['composition'],
  ['following'],
  ['energy'],
  ['plan', 'trials', 'home', 'challenge'],
]

const rankOf = (folder: string) => ORDER.findIndex((rank) => rank.includes(folder))

function importsOf(file: string): string[] {
  const text = readFileSync(join(CORE, file), 'utf8')
  return [...text.matchAll(/(?:from|import\()\s*'(\.[^']+)'/g)].map(([, path = '']) =>
    relative(CORE, resolve(CORE, dirname(file), path)),
  )
}

describe('the folders of core', () => {
  const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.ts'))

  it('are all in the order', () => {
    const folders = new Set(files.map((file) => file.split('/')[0] ?? ''))
    expect([...folders].filter((folder) => rankOf(folder) < 0)).toEqual([])
  })

  it('stand on no package but the calendar’s and the one for quantiles', () => {
    const packages = files.flatMap((file) =>
      [
        ...readFileSync(join(CORE, file), 'utf8').matchAll(
          /(?:^(?:import|export|\}) .*from |^import |import\()'([^.'][^']*)'/gm,
        ),
      ].map(([, name = '']) => `${file} -> ${name}`),
    )
    expect(packages.sort()).toEqual([
      'calendar/day.ts -> date-fns',
      'calendar/zone.ts -> @date-fns/tz',
      'calendar/zone.ts -> date-fns',
      'study/quantiles.ts -> jstat',
    ])
  })

  it('import from below only', () => {
    const upward = files.flatMap((file) => {
      const own = file.split('/')[0] ?? ''
      return importsOf(file)
        .map((path) => path.split('/')[0] ?? '')
        .filter((other) => other !== own && rankOf(other) >= rankOf(own))
        .map((other) => `${file} -> ${other}`)
    })
    expect(upward).toEqual([])
  })
})
