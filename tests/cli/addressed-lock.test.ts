import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { addressedLock } from '../../scripts/lib/addressed-lock.mjs'

const REGISTRY = 'https://registry.example/npm/'

const placed = (path: string, one: Parameters<typeof addressedLock>[0]['packages'][string]) =>
  addressedLock({ packages: { [path]: one } }, REGISTRY).packages[path]?.resolved

// Where a registry keeps the file of a version: recalled from memory, and what `npm ci` finds at every start of the tests.
describe('the address of a package', () => {
  it('is made of its name and version', () => {
    expect(placed('node_modules/vue', { version: '3.5.45' })).toBe(`${REGISTRY}vue/-/vue-3.5.45.tgz`)
  })

  it('holds a scope once', () => {
    expect(placed('node_modules/@tanstack/vue-form', { version: '1.33.5' })).toBe(
      `${REGISTRY}@tanstack/vue-form/-/vue-form-1.33.5.tgz`,
    )
  })

  it('is that of the package a name stands for, and of the innermost where one lies in another', () => {
    expect(placed('node_modules/typescript-native', { name: 'typescript', version: '7.0.2' })).toBe(
      `${REGISTRY}typescript/-/typescript-7.0.2.tgz`,
    )
    expect(placed('node_modules/@img/sharp/node_modules/tar', { version: '7.0.0' })).toBe(
      `${REGISTRY}tar/-/tar-7.0.0.tgz`,
    )
  })

  it('is not made up for what has one, lies within another package or is the project', () => {
    expect(placed('node_modules/a', { version: '1.0.0', resolved: 'file:a.tgz' })).toBe('file:a.tgz')
    expect(placed('node_modules/a/node_modules/b', { version: '1.0.0', inBundle: true })).toBeUndefined()
    expect(placed('', { version: '0.1.0' })).toBeUndefined()
  })
})

it('leaves the lockfile of the repository without any', () => {
  expect(readFileSync('package-lock.json', 'utf8')).not.toMatch(/"resolved"|\.tgz"/)
})
