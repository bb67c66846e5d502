import { looksAt, openTrial } from '../core/trials/trial'
import { ASSUMED_WORLD } from '../core/simulate/world'
const t0 = performance.now()
const s = openTrial({ world: ASSUMED_WORLD, clients: 100, looks: 24, seed: 12 }, ['sum'])
console.log('open', performance.now()-t0)
s.noisesAt(0, 23)
console.log('learn', performance.now()-t0)
for (let c=0;c<100;c++) for (let k=1;k<24;k++) s.noisesAt(c,k)
console.log('noises', performance.now()-t0)
looksAt(s, ['sum'])
console.log('looks', performance.now()-t0)
