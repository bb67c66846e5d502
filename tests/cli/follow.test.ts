import { spawn } from 'node:child_process'
import { once } from 'node:events'
import Papa from 'papaparse'
import { beforeAll, describe, expect, it } from 'vitest'
import { ASSUMED_NOISE, meanOver, VERDICTS } from '../../core/following'
import { measure } from '../../core/trials/trial'
import { STEADY_LOSS } from '../../core/trials/worlds'
import { bundled } from '../../scripts/lib/bundle.mjs'
import { ROOT } from '../../scripts/lib/prepare.mjs'

const HEADER = 'client,sex,birth_date,height_cm,at,set,assessor,site,value'
const ANSWER =
  'client,at,figure,value,change,low,high,odds,verdict,noise_sd,noise_freedom,start,verdict_code,since_12_weeks,since_last,steady_since'

type Row = Record<
  | 'client'
  | 'at'
  | 'figure'
  | 'value'
  | 'change'
  | 'low'
  | 'high'
  | 'odds'
  | 'verdict'
  | 'noise_sd'
  | 'noise_freedom'
  | 'start'
  | 'verdict_code'
  | 'since_12_weeks'
  | 'since_last'
  | 'steady_since',
  string
>

let command = ''
beforeAll(async () => {
  command = await bundled('cli/follow.ts')
})

/** Runs the command as a coach's script would, on standard input. */
async function run(text: string) {
  const child = spawn(process.execPath, [command], { cwd: ROOT })
  let [out, err] = ['', '']
  child.stdout.on('data', (chunk) => (out += chunk))
  child.stderr.on('data', (chunk) => (err += chunk))
  child.stdin.on('error', () => undefined)
  child.stdin.end(text)
  const [code] = (await once(child, 'close')) as [number]
  return { code, out, err, rows: Papa.parse<Row>(out, { header: true, skipEmptyLines: true }).data }
}

/** A studio's readings as rows; every other client loses fat steadily. */
function table(clients: number, looks: number): string {
  const trial = measure({
    clients,
    looks,
    weeksApart: 4,
    client: (place) => (place % 2 ? { course: (week) => 1 - STEADY_LOSS * week } : {}),
  })
  const rows = trial.flatMap((ends, c) =>
    ends.flatMap(({ facts }) =>
      facts.readings.map(
        ({ site, value }) => `c${c},female,1985-01-01,170,${facts.startedAt},laboratory-7,ada,${site},${value}`,
      ),
    ),
  )
  return `${HEADER}\n${rows.join('\n')}\n`
}

describe('the batch follower', () => {
  it('answers every check-in after the first with five figures, tells those who lose and no other', async () => {
    const { code, out, err, rows } = await run(table(30, 7))
    expect([code, err]).toEqual([0, ''])
    expect(out.split('\n')[0]).toBe(ANSWER)
    expect(rows).toHaveLength(30 * 6 * 5)
    const last = rows.filter(({ figure, at }) => figure === 'sum' && at === rows.at(-1)?.at)
    const told = (odd: number) =>
      last.filter(({ client, verdict }) => Number(client.slice(1)) % 2 === odd && verdict === 'real down').length
    expect(told(1)).toBeGreaterThanOrEqual(12)
    expect(
      rows.filter(({ client, verdict }) => Number(client.slice(1)) % 2 === 0 && verdict.startsWith('real')),
    ).toHaveLength(0)
    for (const { change, low, high, verdict, noise_freedom: freedom } of rows) {
      expect(Number(low)).toBeLessThanOrEqual(Number(change))
      expect(Number(high)).toBeGreaterThanOrEqual(Number(change))
      expect(verdict).toMatch(/^(real|leaning) (up|down)$|^not told apart$/)
      expect(Number(freedom)).toBeGreaterThanOrEqual(6)
      expect(Number(freedom)).toBeLessThanOrEqual(80)
    }
    // Codes of answer.md at every check-in, the shorter spans beside the newest.
    for (const { verdict, verdict_code: code } of rows) {
      expect(VERDICTS).toContain(code)
      expect(verdict.startsWith('real')).toBe(code === 'real')
    }
    expect(last.every(({ since_12_weeks: twelve, since_last: one }) => twelve !== '' && one !== '')).toBe(true)
    expect(rows.filter(({ at }) => at !== rows.at(-1)?.at).every(({ since_last: one }) => one === '')).toBe(true)
    expect(rows.every(({ steady_since: day }) => day === '' || /^\d{4}-\d\d-\d\d$/.test(day))).toBe(true)
  }, 60_000)

  it('says the same for one client whether it works in one thread or several', async () => {
    const many = await run(table(26, 3))
    const one = many.rows.filter(({ client }) => client === 'c3')
    expect(one).toHaveLength(2 * 5)
    // The first look has nothing to learn from but two check-ins a client, which are too few: what is assumed.
    expect(Number(one[0]?.noise_freedom)).toBeCloseTo(
      meanOver(ASSUMED_NOISE, (_, __, freedom) => freedom),
      3,
    )
  }, 60_000)

  it('refuses bad rows by their line and goes on with the rest', async () => {
    const row = (over: Partial<Record<string, string>>) => {
      const cells: Record<string, string> = {
        client: 'a',
        sex: 'f',
        birth_date: '1990-01-01',
        height_cm: '170',
        at: '2026-01-05T17:00:00+01:00',
        set: 'laboratory-7',
        assessor: 'ada',
        site: 'triceps',
        value: '14',
        ...over,
      }
      return HEADER.split(',')
        .map((name) => cells[name] ?? '')
        .join(',')
    }
    const bad = [
      { sex: 'x' },
      { birth_date: '1990-02-30' },
      { height_cm: '17' },
      { at: 'yesterday' },
      { set: 'nine-folds' },
      { site: 'elbow' },
      { site: 'waist', value: '80' },
      { value: '900' },
      { value: 'twelve' },
      { birth_date: '1991-01-01' },
      { set: 'laboratory-4' },
    ]
    const good = [row({}), row({ at: '2026-02-02T17:00:00+01:00', value: '13' }), row({ site: 'weight', value: '60' })]
    const { code, err, rows } = await run([HEADER, good[0], ...bad.map(row), good[1], good[2], ''].join('\n'))
    expect(code).toBe(0)
    const lines = err.trim().split('\n')
    expect(lines.map((line) => Number(/^line (\d+): /.exec(line)?.[1])).sort((a, b) => a - b)).toEqual(
      bad.map((_, i) => i + 3),
    )
    expect(err).toContain('line 8: unknown site: elbow')
    expect(err).toContain('line 10: triceps is not between')
    expect(rows.map(({ figure }) => figure)).toEqual(['sum'])
    expect(rows[0]).toMatchObject({ at: '2026-02-02T17:00:00+01:00', start: '2026-01-05T17:00:00+01:00', value: '13' })
  })

  it('takes units and struck readings of longer tables, and ends with 2 on a header that lacks something', async () => {
    const more = `${HEADER},unit,round,struck\n`
    const line = (at: string, site: string, value: string, unit = '', struck = '') =>
      `b,m,1980-01-01,180,${at},navy-tape,,${site},${value},${unit},1,${struck}`
    const visit = (at: string, abdomen: string) =>
      [
        line(at, 'neck', '15', 'in'),
        line(at, 'abdomen', abdomen, 'in'),
        line(at, 'abdomen', '99', 'in', '1'),
        line(at, 'weight', '180', 'lb'),
      ].join('\n')
    const { rows, err } = await run(`${more}${visit('2026-01-05', '38')}\n${visit('2026-02-05', '36')}\n`)
    expect(err).toBe('')
    const weight = rows.find(({ figure }) => figure === 'weight')
    expect(Number(weight?.value)).toBeCloseTo(180 * 0.45359237, 9)
    expect(rows.map(({ figure }) => figure)).toEqual(['fat', 'lean', 'weight', 'percent'])
    const broken = await run('client,at\nx,y\n')
    expect([broken.code, broken.err]).toEqual([2, expect.stringContaining('Missing column in the header: sex')])
    expect((await run('')).code).toBe(2)
  })
})
