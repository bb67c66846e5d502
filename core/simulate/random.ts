/** A source of numbers that gives the same sequence for the same seed. */
export interface Random {
  /** Uniform in [0, 1). */
  next(): number
  /** Normal with mean 0 and standard deviation 1. */
  normal(): number
  /** A uuid (version 4 layout) from this sequence: for demo data only. */
  uuid(): string
}

/** Mulberry32 (Tommy Ettinger, public domain): 32 bits of state, good enough for simulation, not for secrets. */
function mulberry32(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

/** Every simulated reading has an id: in worlds of thousands this is a tenth of the work. */
function hex(next: () => number, digits: number): string {
  let written = ''
  for (let i = 0; i < digits; i += 1) written += '0123456789abcdef'.charAt(Math.floor(next() * 16))
  return written
}

/** A seeded source of random numbers; normals by the Box-Muller transform. */
export function seededRandom(seed: number): Random {
  const next = mulberry32(seed)
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    uuid: () => `${hex(next, 8)}-${hex(next, 4)}-4${hex(next, 3)}-a${hex(next, 3)}-${hex(next, 12)}`,
  }
}
