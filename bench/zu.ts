import { looksAt, openTrial, coverage, startsOf, type Trial } from '../core/trials/trial'
import { LOSING, NO_DAY, STEADY_LOSS, LOSE_THEN_HOLD, HAPPENS_EVERY } from '../core/trials/worlds'
import { ASSUMED_WORLD } from '../core/simulate/world'
const N = Number(process.env.N ?? 100)
const out: string[] = []
const bands = [[2,3],[4,5],[6,6],[7,8],[9,12],[13,30]] as const
const cov = (seen: any[], truth: (c: number, l: number) => number, starts: number[]) => bands.map(([a,b]) => { let n=0,k=0,w=0; seen.forEach((own: any[],c) => own.forEach(({sum}: any,i: number) => { if(sum&&i+2>=a&&i+2<=b){n++; w+=(sum.high-sum.low)/starts[c]!; if(sum.low<=truth(c,i+1)&&truth(c,i+1)<=sum.high)k++}})); return n?`${(100*k/n).toFixed(1)} (${(100*w/n).toFixed(0)})`:'-' }).join('  ')
for (const world of [NO_DAY, ASSUMED_WORLD]) for (const l of LOSING) for (const speed of [1, 2.5]) {
  if (speed === 2.5 && l.weeksApart === 4) continue
  const share = STEADY_LOSS * speed
  const studio = openTrial({ ...l, world, clients: N, seed: 99, looks: l.weeksApart===1?16:l.weeksApart===2?12:9, client: () => ({ course: (w: number) => 1-share*w }) } as Trial, ['sum'])
  const seen = looksAt(studio, ['sum'])
  const lost = (_: number, v: number) => 1 - share*(l.weeksApart ?? 1)*v
  const starts = startsOf(studio, lost)
  out.push(`${world === NO_DAY ? 'no day' : 'day'} ${l.name} x${speed}`.padEnd(26) + cov(seen, (c, v) => starts[c]! * (lost(c, v) - 1), starts))
}
const still = openTrial({ world: ASSUMED_WORLD, clients: N, looks: 16, seed: 98 }, ['sum'])
out.push('still'.padEnd(26) + cov(looksAt(still, ['sum']), () => 0, startsOf(still, () => 1)))
console.log(process.env.TAG, '\n  ' + out.join('\n  '))
