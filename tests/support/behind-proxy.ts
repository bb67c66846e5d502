import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'

/** Several processes behind one address, as a reverse proxy puts them: in turn, and past those that do not answer. */
export interface BehindProxy {
  address: string
  close: () => Promise<void>
}

/**
 * @param addresses of the processes
 * @returns one address before them; a request whose process is gone before it answers is sent to the next only when it
 * cannot have been taken (its connection was refused), else it fails as it would in the world
 */
export async function behindProxy(addresses: readonly string[]): Promise<BehindProxy> {
  let turn = 0
  const server = createServer((asked, answer) => {
    const chunks: Buffer[] = []
    asked.on('data', (chunk: Buffer) => chunks.push(chunk))
    asked.on('end', () => forward(0))
    function forward(tries: number): void {
      turn += 1
      const url = new URL(asked.url ?? '/', addresses[turn % addresses.length])
      const onward = request(url, { method: asked.method, headers: asked.headers }, (got) => {
        answer.writeHead(got.statusCode ?? 502, got.headers)
        got.pipe(answer)
        got.on('error', () => answer.destroy())
      })
      onward.on('error', (error: NodeJS.ErrnoException) => {
        if (error.code === 'ECONNREFUSED' && tries < addresses.length) forward(tries + 1)
        else if (answer.headersSent) answer.destroy()
        else answer.writeHead(502).end()
      })
      onward.end(Buffer.concat(chunks))
    }
  })
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening))
  const { port } = server.address() as AddressInfo
  return {
    address: `http://127.0.0.1:${port}`,
    close: () =>
      new Promise((closed) => {
        server.closeAllConnections()
        server.close(() => closed())
      }),
  }
}
