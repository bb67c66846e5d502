import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

/** Words of earlier editions that no coach would say aloud (answer.md). */
const OLD = /told apart|\bleaning\b|\bjaws?\b|\bsearched\b|\bheld against\b|\d x\b|\}\} x\b/i
/** A caliper has jaws. */
const OF_CALIPERS = /caliper|pressure of the jaws|The jaws (creep|show)|Jaws press|jaw pressure/

const filesIn = (folder: string, ending: RegExp): string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((one) => one.isFile() && ending.test(one.name))
    .map((one) => join(one.parentPath, one.name))

/** What a template shows: its texts, and the attributes that are read out or shown. */
function shownBy(source: string): string[] {
  const template = source.slice(source.indexOf('<template>')).replace(/<!--[\s\S]*?-->/g, '')
  const read = [...template.matchAll(/\s:?(?:aria-label|title|label|alt|placeholder)="([^"]*)"/g)].map(
    ([, words]) => words ?? '',
  )
  const texts = template
    .replace(/\{\{[\s\S]*?\}\}/g, '{{}}')
    .replace(/<(?:[^>"]|"[^"]*")*>/g, '\n')
    .split('\n')
  return [...read, ...texts].map((words) => words.trim()).filter(Boolean)
}

/** Texts of a program: its string literals with a space in them, comments left out. */
function saidBy(source: string): string[] {
  const code = source.replace(/\/\*[\s\S]*?\*\//g, '').replace(/(^|\s)\/\/.*$/gm, '')
  return [...code.matchAll(/'([^'\n]* [^'\n]*)'|`([^`\n]* [^`\n]*)`/g)].map(
    ([, plain, filled]) => plain ?? filled ?? '',
  )
}

const found = (words: readonly string[]) => words.filter((one) => OLD.test(one) && !OF_CALIPERS.test(one))

describe('the words of the answer', () => {
  it('no screen shows or reads out the old ones', () => {
    const screens = filesIn('app', /\.vue$/)
    expect(screens.length).toBeGreaterThan(150)
    for (const file of screens) expect([file, found(shownBy(readFileSync(file, 'utf8')))]).toEqual([file, []])
  })

  it('no sentence of the core, of the page to take home, of mails and of files holds them', () => {
    const programs = [
      'core/following',
      'core/study',
      'core/energy',
      'core/plan',
      'server/take-home',
      'server/jobs',
      'exchange',
      'shared',
    ].flatMap((folder) => filesIn(folder, /\.ts$/))
    expect(programs.length).toBeGreaterThan(100)
    for (const file of programs) expect([file, found(saidBy(readFileSync(file, 'utf8')))]).toEqual([file, []])
  })

  it('finds them where they stand', () => {
    expect(found(shownBy('<template><p>Not told apart, {{ odds }} x</p></template>'))).toHaveLength(1)
    expect(found(shownBy('<template><p :title="`leaning down`">a</p></template>'))).toHaveLength(1)
    expect(found(saidBy("const a = 'picked by a jaw'"))).toHaveLength(1)
    expect(found(saidBy('// leaning over the jaws\nconst a = 1'))).toEqual([])
  })
})
