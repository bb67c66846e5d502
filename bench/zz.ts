import { coverage, everReal, firstReal, looksAt, medianOf, openTrial, shareOf, startsOf, type Trial } from '../core/trials/trial'
import { ASSUMED_WORLD } from '../core/simulate/world'
const N = Number(process.env.N ?? 300)
const t0 = performance.now()
const say = (name: string, ...cells: unknown[]) => console.log(name.padEnd(40), ...cells, `${((performance.now()-t0)/1000).toFixed(0)} s`)
const pc = (x: number) => (100*x).toFixed(1)
const noDay = { ...ASSUMED_WORLD, dayShare: 0 }
const loss = 0.0108
for (const [name, world] of [['no day', noDay], ['day 3 %', ASSUMED_WORLD]] as const) {
  for (const [weeksApart, looks] of [[1,24],[2,14],[4,9]] as const) {
    const trial: Trial = { world, clients: N, looks, weeksApart, seed: 11, client: () => ({ course: (w) => 1 - loss*w }) }
    const studio = openTrial(trial, ['sum'])
    const seen = looksAt(studio, ['sum'])
    const lost = (_: number, v: number) => 1 - loss*weeksApart*v
    const starts = startsOf(studio, lost)
    const truth = (c: number, l: number) => (starts[c] ?? NaN)*(lost(c,l)-1)
    const cov = (from: number, to: number) => { const held = seen.flatMap((own,c)=>own.flatMap(({sum},i)=> i+2>=from&&i+2<=to&&sum? [sum.low<=truth(c,i+1)&&truth(c,i+1)<=sum.high]:[])); return pc(shareOf(held,x=>x)) }
    say(`${name} every ${weeksApart}`, 'median', medianOf(firstReal(seen)), 'told', pc(everReal(seen)), 'last real', pc(shareOf(seen, own=>own.at(-1)?.sum?.verdict==='real')), 'cover 2-5', cov(2,5), '6-8', cov(6,8), '9+', cov(9,99))
  }
  const still = looksAt(openTrial({ world, clients: N, looks: 24, seed: 12 }, ['sum']), ['sum'])
  const held = still.flatMap(own=>own.flatMap(({sum},i)=> i>=4&&sum?[sum.low<=0&&sum.high>=0]:[]))
  const last = (k: string) => pc(shareOf(still, own=>own.at(-1)?.sum?.verdict===k))
  say(`${name} still`, pc(everReal(still)), 'cover', pc(shareOf(held,x=>x)), ['real','some-sign','too-early','no-sign','steady','back','one-fold'].map(k=>`${k} ${last(k)}`).join(' '))
}
