import { existsSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const lines = readFileSync('docs/asvs.md', 'utf8').split('\n')
const rows = lines
  .filter((line) => /^\| \d/.test(line))
  .map((line) => line.split(' | ').map((cell) => cell.replace(/^\| | \|$/g, '')))

/** Files a cell names, each with the titles in quotation marks up to the next file. */
function namedIn(cell: string): { file: string; titles: string[] }[] {
  return [...cell.matchAll(/`([\w./[\]-]+\.(?:ts|md|json))`([^`]*)/g)].map(([, file = '', rest = '']) => ({
    file,
    titles: [...rest.matchAll(/"([^"]+)"/g)].map(([, title = '']) => title),
  }))
}

describe('docs/asvs.md', () => {
  it('has a state for every requirement, and a line or a test for each that is met', () => {
    expect(rows.length).toBeGreaterThan(110)
    for (const [number, , state = '', held = ''] of rows) {
      expect(['met', 'part', 'not', 'none'], number).toContain(state)
      const isHeld = namedIn(held).length > 0 || held.startsWith('the same test') || /^as \d/.test(held)
      if (state === 'met') expect(isHeld, `${number}: ${held}`).toBe(true)
      if (state === 'part' || state === 'not') expect(held.length, number).toBeGreaterThan(10)
    }
  })

  it('names files that exist and tests that are in them', () => {
    for (const [number, , , held = ''] of rows)
      for (const { file, titles } of namedIn(held)) {
        expect(existsSync(file), `${number}: ${file}`).toBe(true)
        const source = readFileSync(file, 'utf8')
        for (const title of titles) expect(source.includes(title), `${number}: ${file}: ${title}`).toBe(true)
      }
  })
})
