import { spawn } from 'node:child_process'
import { once } from 'node:events'
import fc from 'fast-check'
import Papa from 'papaparse'
import { beforeAll, describe, expect, it } from 'vitest'
import { answers, knownColumns, rowReader } from '../../cli/rows'
import { HeaderProblem } from '../../exchange/header'
import { bundled } from '../../scripts/lib/bundle.mjs'
import { ROOT } from '../../scripts/lib/prepare.mjs'

const HEADER =
  'id,sex,age_years,height_cm,weight_kg,fold_chest_mm,fold_abdominal_mm,fold_thigh_mm,girth_neck_cm,girth_abdomen_cm'
const ANSWER = 'id,equation,status,percent_fat,body_density,fat_kg,fat_free_kg,see_percent,reason'

interface Answered {
  id: string
  equation: string
  status: string
  percent_fat: string
  body_density: string
  fat_kg: string
  fat_free_kg: string
  see_percent: string
  reason: string
}

let command = ''
beforeAll(async () => {
  command = await bundled('cli/estimate.ts')
})

/** Runs the command as a coach's script would, on standard input. */
async function run(text: string, args: string[] = []) {
  const child = spawn(process.execPath, [command, ...args], { cwd: ROOT })
  let [out, err] = ['', '']
  child.stdout.on('data', (chunk) => (out += chunk))
  child.stderr.on('data', (chunk) => (err += chunk))
  child.stdin.on('error', () => undefined)
  child.stdin.end(text)
  const [code] = (await once(child, 'close')) as [number]
  const rows = Papa.parse<Answered>(out, { header: true, skipEmptyLines: true }).data
  return { code, out, err, rows }
}

const find = (rows: Answered[], equation: string) => rows.find((row) => row.equation === equation)

describe('the batch estimator', () => {
  it('answers each person with every equation of their sex whose inputs are there', async () => {
    const inches = (value: number) => value * 2.54
    const { code, out, rows } = await run(
      `${HEADER}\nm1,male,20,${inches(72)},90,20,25,30,${inches(17)},${inches(34)}\nf1,female,34,170,60,8,12,20,,\n`,
    )
    expect(code).toBe(0)
    expect(out.split('\n')[0]).toBe(ANSWER)
    // Navy tape worked check, common practice: 12.50.
    expect(Number(find(rows, 'navy-tape-men')?.percent_fat)).toBeCloseTo(12.5, 2)
    // By hand: 1.10938 - 0.0008267 x 75 + 0.0000016 x 5625 - 0.0002574 x 20.
    const density = 1.10938 - 0.0008267 * 75 + 0.0000016 * 5625 - 0.0002574 * 20
    const three = find(rows, 'jackson-pollock-3-men')
    expect(Number(three?.body_density)).toBeCloseTo(density, 12)
    expect(Number(three?.percent_fat)).toBeCloseTo(495 / density - 450, 10)
    expect(Number(three?.fat_kg) + Number(three?.fat_free_kg)).toBeCloseTo(90, 10)
    expect(three?.see_percent).toBe('3.4')
    expect(rows.filter(({ id }) => id === 'f1').map(({ equation }) => equation)).toEqual(['deurenberg', 'cun-bae'])
    expect(rows.some(({ id, equation }) => id === 'm1' && equation.endsWith('women'))).toBe(false)
  })

  it('gives numbers unrounded, to at least ten significant digits', async () => {
    const { rows } = await run(`${HEADER}\na,male,33,181.3,83.7,11.5,17.5,14,,\n`)
    const figure = find(rows, 'jackson-pollock-3-men')?.percent_fat ?? ''
    expect(figure.replace(/\D/g, '').length).toBeGreaterThanOrEqual(10)
  })

  it('cautions outside a sample and refuses what cannot be, with the reason', async () => {
    const { rows } = await run(
      `${HEADER}\nold,male,80,178,80,20,20,20,,\nbig,male,40,178,80,60,80,120,,\nneck,male,40,178,80,,,,90,80\n`,
    )
    const caution = rows.find(({ id, equation }) => id === 'old' && equation === 'jackson-pollock-3-men')
    expect(caution).toMatchObject({ status: 'caution', reason: expect.stringContaining('Age 80') })
    const turned = rows.find(({ id, equation }) => id === 'big' && equation === 'jackson-pollock-3-men')
    expect(turned).toMatchObject({ status: 'refused', percent_fat: '', body_density: '', fat_kg: '' })
    expect(turned?.reason).toContain('turns')
    const neck = rows.find(({ id, equation }) => id === 'neck' && equation === 'navy-tape-men')
    expect(neck).toMatchObject({ status: 'refused', reason: expect.stringContaining('neck is larger') })
  })

  it('gives a malformed row one refused row with its line number, and the rest go on', async () => {
    const text = `${HEADER}\na,unknown,30,178,80,20,20,20,,\nb,male,thirty,178,80,20,20,20,,\nc,male,30,178,80,-20,20,20,,\n"d,1",male,30,178,80,20,20,20,,\n`
    const { code, rows } = await run(text)
    expect(code).toBe(0)
    expect(rows.slice(0, 3).map(({ id, status, equation }) => [id, status, equation])).toEqual([
      ['a', 'refused', ''],
      ['b', 'refused', ''],
      ['c', 'refused', ''],
    ])
    expect(rows.slice(0, 3).map(({ reason }) => /line (\d)/.exec(reason)?.[1])).toEqual(['2', '3', '4'])
    expect(find(rows, 'jackson-pollock-3-men')).toMatchObject({ id: 'd,1', status: 'ok' })
  })

  it('exits 2 with a clear message when a column header is missing, or a site is not known', async () => {
    const missing = await run('id,sex,age_years\n1,male,30\n')
    expect([missing.code, missing.out]).toEqual([2, ''])
    expect(missing.err).toContain('height_cm, weight_kg')
    expect((await run('')).code).toBe(2)
    const unknown = await run(`${HEADER},fold_elbow_mm\n`)
    expect([unknown.code, unknown.err.includes('fold_elbow_mm')]).toEqual([2, true])
    expect((await run('', ['/no/such/file.csv'])).code).toBe(2)
  })

  it('takes a byte-order mark, spaces, Windows line ends and columns in any order', async () => {
    const { rows } = await run('\uFEFFsex, id ,weight_kg,height_cm,age_years\r\nfemale,x,60,170,34\r\n')
    expect(rows.map(({ equation }) => equation)).toEqual(['deurenberg', 'cun-bae'])
  })

  it('streams: memory does not grow with the file', { timeout: 60_000 }, async () => {
    const child = spawn(process.execPath, ['--max-old-space-size=40', command], { cwd: ROOT })
    const body = `p,male,30,178,80,20,20,20,38,84\n`.repeat(2000)
    let bytes = 0
    child.stdout.on('data', (chunk: Buffer) => (bytes += chunk.length))
    child.stdin.write(`${HEADER}\n`)
    for (let i = 0; i < 40; i += 1) if (!child.stdin.write(body)) await once(child.stdin, 'drain')
    child.stdin.end()
    const [code] = (await once(child, 'close')) as [number]
    expect(code).toBe(0)
    // 80,000 people, some ten rows each: far more than 40 MB of heap would hold at once.
    expect(bytes).toBeGreaterThan(45e6)
  })
})

describe('rows nobody wrote on purpose', () => {
  const columns = ['id', 'sex', 'age_years', 'height_cm', 'weight_kg', ...knownColumns()]
  const reader = rowReader(columns)
  const cell = fc.oneof(
    { weight: 6, arbitrary: fc.double({ min: 0, max: 250, noNaN: true }).map(String) },
    fc.constantFrom('', '0', '-1', 'x', '1e999', 'NaN', 'Infinity', '12,5', '"', '0x10', '  7 ', '١٢'),
    fc.string({ maxLength: 6 }),
  )
  const sex = fc.constantFrom('male', 'female', 'F', 'm', 'other', '')

  it('10,000 fuzzed rows: no crash, each answered, never a half number', () => {
    fc.assert(
      fc.property(sex, fc.array(cell, { maxLength: columns.length + 2 }), (who, cells) => {
        const text = answers(reader, ['id', who, ...cells], 7)
        for (const line of Papa.parse<string[]>(text.trimEnd()).data) {
          if (line.length === 1 && line[0] === '') continue
          expect(line).toHaveLength(9)
          const [, , status, percent] = line
          expect(['ok', 'caution', 'refused']).toContain(status)
          expect(percent === '').toBe(status === 'refused')
          if (percent) expect(Number(percent)).toBeGreaterThanOrEqual(0)
        }
      }),
      { numRuns: 10_000 },
    )
  })

  it('knows every site by its column name', () => {
    expect(reader.columns).toHaveLength(columns.length - 2)
    expect(() => rowReader(['id', 'id', ...columns])).toThrow(HeaderProblem)
  })
})
