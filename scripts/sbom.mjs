/**
 * npm run sbom [-- FILE]: what the application is built from, as a CycloneDX bill of materials (npm writes it from the
 * lockfile), and its licences on standard output. Ends with 1 where a licence is none we may ship under, or is not said.
 */
import { spawnSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { ensureInstalled, ROOT } from './lib/prepare.mjs'

/** Licences that ask for no more than their notice to go along. */
const PERMISSIVE =
  /^(MIT|MIT-0|ISC|0BSD|BSD-[23]-Clause|Apache-2\.0|BlueOak-1\.0\.0|CC0-1\.0|CC-BY-[34]\.0|Unlicense|Python-2\.0|OFL-1\.1|PostgreSQL|Zlib|WTFPL)$/
/** Used as they are, unchanged and by themselves: their own source goes along unchanged. */
const AS_THEY_ARE = /^(LGPL-3\.0-or-later|MPL-2\.0)$/

/** What their packages do not say where npm looks, read by hand (2026-11-26). */
const READ_BY_HAND = {
  // Its LICENSE file.
  'png-js': 'MIT',
  // "MIT/X11" in its package.json, in an old form.
  chainsaw: 'MIT',
  // Its LICENSE.txt; comes with otplib.
  'thirty-two': 'MIT',
  // Says nothing at all; reached only by the reader of exceljs, which is never called (only its writer is).
  buffers: 'not said, never called',
}

const said = ({ name, licenses = [] }) =>
  licenses.map(({ license, expression }) => expression ?? license?.id ?? license?.name ?? '').join(' AND ') ||
  (READ_BY_HAND[name] ?? '')

/** Whether an expression can be kept: one of an OR, each of an AND. */
const isFine = (expression) =>
  expression === READ_BY_HAND.buffers ||
  expression
    .replace(/[()]/g, '')
    .split(/ AND /)
    .every((all) => all.split(/ OR /).some((one) => PERMISSIVE.test(one) || AS_THEY_ARE.test(one)))

ensureInstalled()
const file = resolve(process.argv[2] ?? join(ROOT, '.output/sbom.cdx.json'))
const { status, stdout, stderr } = spawnSync('npm', ['sbom', '--sbom-format', 'cyclonedx'], {
  cwd: ROOT,
  encoding: 'utf8',
  maxBuffer: 64 * 1024 * 1024,
})
if (status !== 0) throw new Error(`npm sbom ended with ${status}: ${stderr}`)
// npm's own way to leave out what is only built with loses packages that are needed by both.
const all = JSON.parse(stdout)
const components = all.components.filter(
  ({ properties = [] }) => !properties.some(({ name }) => name === 'cdx:npm:package:development'),
)
const shipped = new Set(components.map((part) => part['bom-ref']))
const dependencies = all.dependencies.filter(({ ref }) => shipped.has(ref) || ref === all.metadata.component['bom-ref'])
for (const one of dependencies) one.dependsOn = one.dependsOn?.filter((ref) => shipped.has(ref))
mkdirSync(dirname(file), { recursive: true })
writeFileSync(file, `${JSON.stringify({ ...all, components, dependencies }, null, 1)}\n`)

const byLicence = new Map()
for (const part of components) byLicence.set(said(part), [...(byLicence.get(said(part)) ?? []), part])
const lines = [...byLicence].sort((a, b) => b[1].length - a[1].length)
for (const [licence, parts] of lines) {
  const few = parts.length <= 12 ? `: ${parts.map(({ name, version }) => `${name} ${version}`).join(', ')}` : ''
  console.log(`${String(parts.length).padStart(5)}  ${licence || 'not said'}${isFine(licence) ? '' : ' (!)'}${few}`)
}
console.log(`${components.length} parts, written to ${file}`)
if (lines.some(([licence]) => !isFine(licence))) process.exitCode = 1
