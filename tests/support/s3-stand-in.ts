import { createHash } from 'node:crypto'
import { createServer, type IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import aws4 from 'aws4'

export const S3_KEYS = {
  keyId: 'reedwater',
  secret: 'a-secret-of-the-boathouse',
  region: 'eu-north-1',
  bucket: 'boathouse',
}

/** A stand-in for an S3-compatible store: objects in memory, every request's signature checked by another library. */
export interface StandIn {
  endpoint: string
  objects: Map<string, Buffer>
  /** Answers as many requests with 500 before it goes on. */
  failNext: (count: number) => void
  close: () => Promise<void>
}

/** Whether a request is signed as AWS's Signature Version 4 asks (checked by aws4, which did not sign it). */
function isSigned(asked: IncomingMessage): boolean {
  const given = asked.headers.authorization ?? ''
  const names = /SignedHeaders=([^,]+)/.exec(given)?.[1]?.split(';') ?? []
  const headers = Object.fromEntries(names.map((name) => [name, String(asked.headers[name] ?? '')]))
  const signed = aws4.sign(
    { host: asked.headers.host, path: asked.url, method: asked.method, service: 's3', region: S3_KEYS.region, headers },
    { accessKeyId: S3_KEYS.keyId, secretAccessKey: S3_KEYS.secret },
  )
  const signature = (text: string) => /Signature=([\da-f]{64})/.exec(text)?.[1]
  return signature(given) !== undefined && signature(given) === signature(String(signed.headers?.Authorization ?? ''))
}

const PAGE = 2

export async function s3StandIn(): Promise<StandIn> {
  const objects = new Map<string, Buffer>()
  const at = new Map<string, string>()
  let failing = 0
  function list(url: URL): string {
    const prefix = url.searchParams.get('prefix') ?? ''
    const names = [...objects.keys()].filter((name) => name.startsWith(prefix)).sort()
    const from = Number(url.searchParams.get('continuation-token') ?? 0)
    const page = names.slice(from, from + PAGE)
    const more = from + PAGE < names.length
    const contents = page.map(
      (key) => `<Contents><Key>${key}</Key><LastModified>${at.get(key)}</LastModified></Contents>`,
    )
    return `<?xml version="1.0"?><ListBucketResult><IsTruncated>${more}</IsTruncated>${more ? `<NextContinuationToken>${from + PAGE}</NextContinuationToken>` : ''}${contents.join('')}</ListBucketResult>`
  }
  const server = createServer((asked, answer) => {
    const chunks: Buffer[] = []
    asked.on('data', (chunk: Buffer) => chunks.push(chunk))
    asked.on('end', () => {
      const body = Buffer.concat(chunks)
      const url = new URL(asked.url ?? '/', 'http://s3.example')
      const key = decodeURIComponent(url.pathname.slice(`/${S3_KEYS.bucket}/`.length))
      if (failing > 0) {
        failing -= 1
        answer.writeHead(500).end()
      } else if (!isSigned(asked)) answer.writeHead(403).end()
      else if (asked.method === 'PUT') {
        const sha = createHash('sha256').update(body).digest('hex')
        if (asked.headers['x-amz-content-sha256'] !== sha) return answer.writeHead(400).end()
        objects.set(key, body)
        at.set(key, new Date().toISOString())
        answer.writeHead(200).end()
      } else if (asked.method === 'DELETE') answer.writeHead(objects.delete(key) ? 204 : 404).end()
      else if (url.pathname === `/${S3_KEYS.bucket}`) answer.end(list(url))
      else if (objects.has(key)) answer.end(objects.get(key))
      else answer.writeHead(404).end()
    })
  })
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
  return {
    endpoint: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    objects,
    failNext: (count) => (failing = count),
    close: () =>
      new Promise((closed) => {
        server.closeAllConnections()
        server.close(() => closed())
      }),
  }
}
