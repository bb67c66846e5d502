import { createHash } from 'node:crypto'
import { AwsClient } from 'aws4fetch'
import type { PhotoStore } from './photo-store'

/** An S3-compatible store: where it is, whose it is, and what opens it. */
export interface S3Settings {
  /** Such as https://s3.example; the bucket stands in the path. */
  endpoint: string
  bucket: string
  region: string
  keyId: string
  secret: string
  /** Before every key, such as `photos/`. */
  prefix: string
}

/** The store answered that it cannot. */
export class PhotoStoreFailed extends Error {
  constructor(what: string, status: number) {
    super(`The store of photographs could not ${what} (it answered ${status}).`)
  }
}

const TRIES = 3
const NAME = /^([\da-f-]{36})\.jpg$/

/** The text of the first such element. Names and days of ours need no unescaping: the rest is not ours. */
const textIn = (xml: string, name: string) => new RegExp(`<${name}>([^<]*)</${name}>`).exec(xml)?.[1] ?? ''

/** Photographs as objects of an S3-compatible store, each under its id. The store confirms every one's SHA-256. */
export function s3Photos({ endpoint, bucket, region, keyId, secret, prefix }: S3Settings): PhotoStore {
  const client = new AwsClient({ accessKeyId: keyId, secretAccessKey: secret, service: 's3', region, retries: TRIES })
  const base = `${endpoint.replace(/\/+$/, '')}/${bucket}`
  const address = (id: string) => `${base}/${prefix}${id}.jpg`

  async function page(from: string | null): Promise<string> {
    const query = new URLSearchParams({ 'list-type': '2', prefix, ...(from ? { 'continuation-token': from } : {}) })
    const answer = await client.fetch(`${base}?${query.toString()}`)
    if (!answer.ok) throw new PhotoStoreFailed('list what it holds', answer.status)
    return answer.text()
  }

  return {
    async put(id, bytes) {
      const headers = {
        'content-type': 'image/jpeg',
        'x-amz-content-sha256': createHash('sha256').update(bytes).digest('hex'),
      }
      const answer = await client.fetch(address(id), { method: 'PUT', body: new Uint8Array(bytes), headers })
      if (!answer.ok) throw new PhotoStoreFailed('keep a photograph', answer.status)
    },
    async get(id) {
      const answer = await client.fetch(address(id))
      if (answer.status === 404) return null
      if (!answer.ok) throw new PhotoStoreFailed('give a photograph', answer.status)
      return Buffer.from(await answer.arrayBuffer())
    },
    async remove(id) {
      const answer = await client.fetch(address(id), { method: 'DELETE' })
      if (!answer.ok && answer.status !== 404) throw new PhotoStoreFailed('remove a photograph', answer.status)
    },
    async list() {
      const kept: { id: string; at: number }[] = []
      let from: string | null = null
      do {
        const xml = await page(from)
        for (const [, entry = ''] of xml.matchAll(/<Contents>(.*?)<\/Contents>/gs)) {
          const id = NAME.exec(textIn(entry, 'Key').slice(prefix.length))?.[1]
          if (id) kept.push({ id, at: Date.parse(textIn(entry, 'LastModified')) })
        }
        from = textIn(xml, 'IsTruncated') === 'true' ? textIn(xml, 'NextContinuationToken') : null
      } while (from)
      return kept
    },
  }
}

/** The store the environment names: S3_ENDPOINT, S3_BUCKET, S3_KEY_ID and S3_SECRET, S3_REGION and S3_PREFIX; null: none. */
export function s3FromEnvironment(env: NodeJS.ProcessEnv): S3Settings | null {
  const { S3_ENDPOINT: endpoint, S3_BUCKET: bucket, S3_KEY_ID: keyId, S3_SECRET: secret } = env
  if (!endpoint) return null
  if (!bucket || !keyId || !secret)
    throw new Error('S3_ENDPOINT is set: S3_BUCKET, S3_KEY_ID and S3_SECRET are needed with it.')
  return { endpoint, bucket, keyId, secret, region: env.S3_REGION ?? 'us-east-1', prefix: env.S3_PREFIX ?? 'photos/' }
}
