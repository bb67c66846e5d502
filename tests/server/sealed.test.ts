import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import { afterAll, describe, expect, it } from 'vitest'
import { importArchive } from '../../server/exchange/archive-in'
import { openArchive, verifyArchive } from '../../server/exchange/archive-read'
import { listBackups, makeBackup } from '../../server/exchange/backups'
import { UNWATCHED } from '../../server/exchange/progress'
import { folderPhotos } from '../../server/ports/photo-store'
import { sealAll, sealedPhotos } from '../../server/ports/sealed-photos'
import { client } from '../../server/db/schema'
import { dataKeys } from '../../server/sealed/keys'
import { isSealed, openSealed, sealedFile } from '../../server/sealed/sealed-file'
import { seededStore, testStore } from '../support/database'

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-sealed-'))
afterAll(() => rmSync(folder, { recursive: true }))
const [one, other] = [randomBytes(32).toString('base64'), randomBytes(32).toString('hex')]
const keysOf = (text: string) => dataKeys({ DATA_KEY: text })
const file = join(folder, 'sealed')

async function seal(plain: Buffer, chunk = 10_000, key = one): Promise<void> {
  const current = keysOf(key).current
  if (!current) throw new Error('There is no key.')
  const chunks = Array.from({ length: Math.ceil(plain.length / chunk) }, (_, i) =>
    plain.subarray(i * chunk, (i + 1) * chunk),
  )
  await pipeline(Readable.from(chunks, { objectMode: false }), sealedFile(file, current))
}

/** What a sealed file gives from one place to another. */
async function unsealed(from = 0, to = Infinity, key = one): Promise<Buffer> {
  const { size, reader } = await openSealed(file, keysOf(key))
  try {
    return await buffer(reader._readStreamForRange(from, Math.min(to, size)))
  } finally {
    await new Promise((done) => reader.close(done))
  }
}

describe('a sealed file', () => {
  it('gives every part of itself back, whatever its length, however it was written', async () => {
    const sizes = fc.oneof(
      fc.constantFrom(0, 1, 65_535, 65_536, 65_537, 131_072, 131_073),
      fc.integer({ min: 0, max: 300_000 }),
    )
    await fc.assert(
      fc.asyncProperty(sizes, fc.integer({ min: 1, max: 90_000 }), fc.nat(), fc.nat(), async (size, chunk, a, b) => {
        const plain = randomBytes(size)
        await seal(plain, chunk)
        expect(await isSealed(file)).toBe(true)
        expect((await unsealed()).equals(plain)).toBe(true)
        const [from, to] = [a % (size + 1), b % (size + 1)].sort((x, y) => x - y) as [number, number]
        expect((await unsealed(from, to)).equals(plain.subarray(from, to))).toBe(true)
      }),
      { numRuns: 40 },
    )
  })

  it('says nothing of what it holds, and never the same twice', async () => {
    const plain = Buffer.from('Maren Osk '.repeat(20_000))
    await seal(plain)
    const first = readFileSync(file)
    await seal(plain)
    expect(first.includes('Maren')).toBe(false)
    expect(readFileSync(file).subarray(40).equals(first.subarray(40))).toBe(false)
  })

  it('does not open with a byte changed, a piece cut off, moved or put in, wherever', async () => {
    const piece = 65_536 + 16
    await seal(randomBytes(200_000))
    const whole = readFileSync(file)
    const header = whole.length - 200_000 - 4 * 16
    const opens = async (bytes: Buffer) => {
      writeFileSync(file, bytes)
      return unsealed().then(
        () => true,
        () => false,
      )
    }
    expect(await opens(whole)).toBe(true)
    for (let i = 0; i < 60; i += 1) {
      const changed = Buffer.from(whole)
      const at = i < header ? i : Math.floor(Math.random() * whole.length)
      changed[at] = (changed[at] ?? 0) ^ (1 << (i % 8))
      expect(await opens(changed), `byte ${at}`).toBe(false)
    }
    for (const [what, bytes] of [
      ['cut after a piece', whole.subarray(0, header + piece)],
      ['cut after three', whole.subarray(0, header + 3 * piece)],
      ['cut in a piece', whole.subarray(0, header + piece + 100)],
      ['its header alone', whole.subarray(0, header)],
      ['a piece taken out', Buffer.concat([whole.subarray(0, header), whole.subarray(header + piece)])],
      [
        'two pieces the other way round',
        Buffer.concat([
          whole.subarray(0, header),
          whole.subarray(header + piece, header + 2 * piece),
          whole.subarray(header, header + piece),
          whole.subarray(header + 2 * piece),
        ]),
      ],
      ['its end twice', Buffer.concat([whole, whole.subarray(header + 3 * piece)])],
      ['nothing', Buffer.alloc(0)],
    ] as const)
      expect(await opens(bytes), what).toBe(false)
  })

  it('opens with the key it was sealed with, also when that is an earlier one; else it asks for it', async () => {
    const plain = randomBytes(1000)
    await seal(plain, 1000, one)
    expect((await unsealed(0, Infinity, `${other}, ${one}`)).equals(plain)).toBe(true)
    await expect(openSealed(file, keysOf(other))).rejects.toThrow('another key than those in DATA_KEY')
    await expect(openSealed(file, keysOf(''))).rejects.toThrow('please name it in DATA_KEY')
    expect(() => keysOf('too short')).toThrow('32 random bytes')
  })
})

describe('photographs', () => {
  const kept = folderPhotos(join(folder, 'photos'))
  const picture = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), randomBytes(5_000)])

  it('lie sealed under their ids; those from before a key are given as they are, until they are sealed', async () => {
    const [old, fresh] = [uuid(), uuid()]
    await kept.put(old, picture)
    const sealed = sealedPhotos(kept, keysOf(one))
    await sealed.put(fresh, picture)
    expect((await kept.get(fresh))?.includes(picture.subarray(0, 40))).toBe(false)
    for (const id of [old, fresh]) expect((await sealed.get(id))?.equals(picture)).toBe(true)
    expect(await sealAll(kept, keysOf(one))).toBe(1)
    expect((await kept.get(old))?.includes(picture.subarray(0, 40))).toBe(false)
    // Another key from now on: what lies there is sealed anew, and opens with the new one alone.
    expect(await sealAll(kept, keysOf(`${other},${one}`))).toBe(2)
    expect(await sealAll(kept, keysOf(`${other},${one}`))).toBe(0)
    for (const id of [old, fresh]) expect((await sealedPhotos(kept, keysOf(other)).get(id))?.equals(picture)).toBe(true)
    await expect(sealedPhotos(kept, keysOf(one)).get(old)).rejects.toThrow('another key')
    await expect(sealedPhotos(kept, keysOf('')).get(old)).rejects.toThrow('name it in DATA_KEY')
    expect(await sealed.get(uuid())).toBeNull()
  })

  it('do not open under another id, or changed', async () => {
    const sealed = sealedPhotos(kept, keysOf(one))
    const [mine, yours] = [uuid(), uuid()]
    await sealed.put(mine, picture)
    const bytes = (await kept.get(mine)) ?? Buffer.alloc(0)
    await kept.put(yours, bytes)
    await expect(sealed.get(yours)).rejects.toThrow('does not open')
    bytes[bytes.length - 30] = (bytes[bytes.length - 30] ?? 0) ^ 1
    await kept.put(mine, bytes)
    await expect(sealed.get(mine)).rejects.toThrow('does not open')
  })
})

describe('a backup', () => {
  it('is sealed where the environment names a key, verified sealed, and restored with it alone', async () => {
    const [full, empty] = [await seededStore(), await testStore()]
    const into = join(folder, 'backups')
    const photos = folderPhotos(join(folder, 'none'))
    const before = process.env.DATA_KEY
    try {
      process.env.DATA_KEY = one
      const { name } = await makeBackup(full, photos, into, UNWATCHED)
      expect(name).toMatch(/\.oakpinch\.zip\.sealed$/)
      expect((await listBackups(into)).map((backup) => backup.name)).toEqual([name])
      const path = join(into, name)
      const bytes = readFileSync(path)
      for (const word of ['PK\u0003\u0004', 'manifest.json', 'tables/', 'Maren'])
        expect(bytes.includes(word), word).toBe(false)
      process.env.DATA_KEY = other
      await expect(openArchive(path)).rejects.toThrow('another key')
      process.env.DATA_KEY = ''
      await expect(openArchive(path)).rejects.toThrow('name it in DATA_KEY')
      process.env.DATA_KEY = one
      const archive = await openArchive(path)
      await verifyArchive(archive, UNWATCHED)
      await empty.database.transaction((tx) => importArchive(tx, archive, photos, UNWATCHED))
      archive.zip.close()
      const names = (await empty.database.select({ name: client.name }).from(client)).map((row) => row.name).sort()
      expect(names).toEqual(
        (await full.database.select({ name: client.name }).from(client)).map((row) => row.name).sort(),
      )
    } finally {
      if (before === undefined) delete process.env.DATA_KEY
      else process.env.DATA_KEY = before
      await full.close()
      await empty.close()
    }
  }, 60_000)
})
