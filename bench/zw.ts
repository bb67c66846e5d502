import { openTrial, type Trial } from '../core/trials/trial'
import { SMALL_WORLD, UNCHANGED, UNCHANGED_WEIGHTS, LOSING, NO_DAY } from '../core/trials/worlds'
import { meanOver } from '../core/following/noise'
for (const world of [...UNCHANGED, ...UNCHANGED_WEIGHTS, LOSING[0]!, {...LOSING[0]!, name:'losing no day', world: NO_DAY}]) {
  const fig = world.tape ? 'percent' : world.name.startsWith('weight') ? 'weight' : 'sum'
  const s = openTrial({ ...world, clients: 40, looks: 24, seed: 77 } as Trial, [fig])
  const at = (look: number) => { const n = s.noisesAt(1, look)[fig]; return `${meanOver(n, t => t.rho>0?1:0).toFixed(2)}/${meanOver(n, t => t.rho>=.85?1:0).toFixed(2)} S ${meanOver(n,(_,x)=>x).toFixed(2)} nu ${meanOver(n,(_,__,x)=>x).toFixed(0)}` }
  console.log(world.name.padEnd(46), [5,8,11,15,23].map(at).join(' | '))
}
