import type { Equation } from './equation'

type Load = () => Promise<readonly Equation[]>

const jacksonPollock: Load = async () => (await import('./sources/jackson-pollock')).JACKSON_POLLOCK
const durninWomersley: Load = async () => (await import('./sources/durnin-womersley')).DURNIN_WOMERSLEY
const sloan: Load = async () => (await import('./sources/sloan')).SLOAN
const athletes: Load = async () => (await import('./sources/athletes')).ATHLETES
const evans: Load = async () => (await import('./sources/evans')).EVANS
const peterson: Load = async () => (await import('./sources/peterson')).PETERSON
const slaughter: Load = async () => (await import('./sources/slaughter')).SLAUGHTER
const nineSiteRatio: Load = async () => (await import('./sources/nine-site-ratio')).NINE_SITE_RATIO
const navyTape: Load = async () => (await import('./sources/navy-tape')).NAVY_TAPE
const oneSiteTape: Load = async () => (await import('./sources/one-site-tape')).ONE_SITE_TAPE
const weltman: Load = async () => (await import('./sources/weltman')).WELTMAN
const indexes: Load = async () => (await import('./sources/indexes')).INDEXES

/** Where an equation's file is found, by the beginning of its id. */
const FILES: readonly (readonly [string, Load])[] = [
  ['jackson-pollock-', jacksonPollock],
  ['durnin-womersley', durninWomersley],
  ['sloan-', sloan],
  ['withers-', athletes],
  ['yuhasz-', athletes],
  ['faulkner-', athletes],
  ['evans-', evans],
  ['peterson-', peterson],
  ['slaughter-', slaughter],
  ['nine-site-ratio', nineSiteRatio],
  ['navy-tape-', navyTape],
  ['hodgdon-beckett-', navyTape],
  ['one-site-tape-', oneSiteTape],
  ['tran-weltman-', weltman],
  ['weltman-obese-', weltman],
  ['relative-fat-mass', indexes],
  ['body-adiposity-index', indexes],
  ['deurenberg', indexes],
  ['cun-bae', indexes],
]

/** Loads the named equations and nothing else: for screens that need a few of them soon. Unknown ids are left out. */
export async function loadEquations(ids: readonly string[]): Promise<Equation[]> {
  const files = new Set(ids.flatMap((id) => FILES.find(([start]) => id.startsWith(start))?.[1] ?? []))
  const loaded = (await Promise.all([...files].map((load) => load()))).flat()
  return ids.flatMap((id) => loaded.find((equation) => equation.id === id) ?? [])
}
