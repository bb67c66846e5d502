import { mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'

/** Where the bytes of photographs lie, under the ids of their rows. */
export interface PhotoStore {
  /** Resolves once the bytes are safe. */
  put: (id: string, bytes: Buffer) => Promise<void>
  get: (id: string) => Promise<Buffer | null>
  remove: (id: string) => Promise<void>
  /** Ids of everything kept, with when it was put there (ms since 1970). */
  list: () => Promise<{ id: string; at: number }[]>
}

const FILE = /^([\da-f-]{36})\.jpg$/

/** Photographs as files of a folder. */
export function folderPhotos(folder: string): PhotoStore {
  const path = (id: string) => join(folder, `${id}.jpg`)
  return {
    async put(id, bytes) {
      await mkdir(folder, { recursive: true, mode: 0o700 })
      const unfinished = `${path(id)}.${process.pid}.part`
      const file = await open(unfinished, 'w', 0o600)
      try {
        await file.writeFile(bytes)
        await file.sync()
      } finally {
        await file.close()
      }
      await rename(unfinished, path(id))
      const names = await open(folder, 'r')
      await names.sync().finally(() => names.close())
    },
    get: (id) =>
      readFile(path(id)).catch((error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return null
        throw error
      }),
    remove: (id) => rm(path(id), { force: true }),
    async list() {
      const names = await readdir(folder).catch(() => [])
      const kept = await Promise.all(
        names.map(async (name) => {
          const id = FILE.exec(name)?.[1]
          if (name.endsWith('.part')) await rm(join(folder, name), { force: true })
          return id ? [{ id, at: (await stat(join(folder, name))).mtimeMs }] : []
        }),
      )
      return kept.flat()
    },
  }
}
