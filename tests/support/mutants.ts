import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { seededRandom, type Random } from '../../core/simulate'

const pick = <Item>(random: Random, items: readonly Item[]) => items[Math.floor(random.next() * items.length)] as Item

/** Things that stand in files by accident or ill will. */
const STRANGE = [
  '',
  '\0',
  '"',
  '=cmd|calc',
  '-1e309',
  '999999999999999999999',
  '../../etc/passwd',
  'null',
  '{}',
  '[]',
  '\uD800',
  '9'.repeat(400),
  '2026-02-30',
  '00/00/0000',
  '<!DOCTYPE a [<!ENTITY b "c">]>',
  ',,,,,,,,',
  '\r\n\r\n',
  '١٢٫٥',
]

/** Bytes with something in them changed: a bit, a cut, a piece doubled or lost, something strange put in. */
function mutateBytes(random: Random, bytes: Uint8Array): Uint8Array {
  if (bytes.length === 0) return Buffer.from(pick(random, STRANGE))
  const out = Buffer.from(bytes)
  const at = () => Math.floor(random.next() * out.length)
  switch (Math.floor(random.next() * 6)) {
    case 0: {
      for (let i = 0; i < 1 + random.next() * 8; i += 1) out.writeUInt8(Math.floor(random.next() * 256), at())
      return out
    }
    case 1:
      return out.subarray(0, at())
    case 2: {
      const [from, to] = [at(), at()].sort((a, b) => a - b) as [number, number]
      return Buffer.concat([out.subarray(0, to), out.subarray(from)])
    }
    case 3: {
      const [from, to] = [at(), at()].sort((a, b) => a - b) as [number, number]
      return Buffer.concat([out.subarray(0, from), out.subarray(Math.min(to, from + 300))])
    }
    default: {
      const place = at()
      return Buffer.concat([
        out.subarray(0, place),
        Buffer.from(pick(random, STRANGE)),
        out.subarray(place + Math.floor(random.next() * 12)),
      ])
    }
  }
}

/** Text with one word or number of it changed for something strange. */
function mutateText(random: Random, text: string): string {
  const words = [...text.matchAll(/[\w.:-]+/g)]
  const word = pick(random, words)
  if (!word) return text + pick(random, STRANGE)
  return text.slice(0, word.index) + pick(random, STRANGE) + text.slice(word.index + word[0].length)
}

/** Files much like one that is right, each with something wrong in it: at random by a seed. */
export function* mutants(original: Buffer, count: number, seed: number): Generator<Buffer> {
  const random = seededRandom(seed)
  const isZip = original.subarray(0, 2).toString() === 'PK'
  for (let i = 0; i < count; i += 1) {
    if (!isZip || random.next() < 0.4)
      yield Buffer.from(
        random.next() < 0.5 && !isZip ? mutateText(random, original.toString()) : mutateBytes(random, original),
      )
    else {
      // A part is changed and the ZIP is whole again: what is wrong lies deeper.
      const parts = unzipSync(original)
      const name = pick(random, Object.keys(parts))
      const part = parts[name] ?? new Uint8Array()
      parts[name] =
        random.next() < 0.5 && !name.endsWith('jpg') && part.length > 0
          ? strToU8(mutateText(random, strFromU8(part)))
          : new Uint8Array(mutateBytes(random, part))
      yield Buffer.from(zipSync(parts, { level: 1 }))
    }
  }
}
