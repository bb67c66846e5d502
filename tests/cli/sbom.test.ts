import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'

it(
  'a bill of materials names what is shipped and its licences, and nothing that is only built with',
  { timeout: 300_000 },
  () => {
    const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-sbom-'))
    const file = join(folder, 'sbom.json')
    const { status, stdout } = spawnSync(process.execPath, ['scripts/sbom.mjs', file], { encoding: 'utf8' })
    const { bomFormat, components } = JSON.parse(readFileSync(file, 'utf8')) as {
      bomFormat: string
      components: { name: string; version: string; purl: string }[]
    }
    rmSync(folder, { recursive: true })
    expect(status).toBe(0)
    expect(bomFormat).toBe('CycloneDX')
    const names = new Set(components.map(({ name }) => name))
    const { dependencies, devDependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as Record<
      'dependencies' | 'devDependencies',
      Record<string, string>
    >
    for (const name of Object.keys(dependencies)) expect(names, name).toContain(name)
    for (const name of ['vitest', 'puppeteer-core', 'axe-core', 'fast-check'])
      expect([name in devDependencies, names.has(name)]).toEqual([true, false])
    expect(components.every(({ purl }) => purl.startsWith('pkg:npm/'))).toBe(true)
    expect(stdout).toMatch(/\d+ {2}MIT/)
    expect(stdout).not.toContain('(!)')
  },
)
