import { Agent, request } from 'node:http'

const agent = new Agent({ keepAlive: true, maxSockets: 8 })

/** A request whose target goes onto the wire as it is written: `fetch` would tidy it up first. */
export function sendRaw(
  address: string,
  { method, target, headers, body }: { method: string; target: string; headers: Record<string, string>; body?: string },
): Promise<{ status: number; text: string }> {
  const { hostname, port } = new URL(address)
  return new Promise((answered, failed) => {
    const length = { 'content-length': String(Buffer.byteLength(body ?? '')) }
    const all = body === undefined ? headers : { ...headers, ...length }
    const sent = request({ hostname, port, method, path: target, headers: all, agent }, (response) => {
      const chunks: Buffer[] = []
      response.on('data', (chunk: Buffer) => chunks.push(chunk))
      response.once('end', () =>
        answered({ status: response.statusCode ?? 0, text: Buffer.concat(chunks).toString('utf8') }),
      )
    })
    sent.once('error', failed)
    sent.end(body)
  })
}
