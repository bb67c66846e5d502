import { describe, expect, it } from 'vitest'
import { newestOnly } from '../../app/newest'

/** A server that answers when it is told to. */
function slowServer() {
  const sent: string[] = []
  const answers: (() => void)[] = []
  const send = (id: string, value: number) =>
    new Promise<void>((done, refuse) => {
      sent.push(`${id} ${value}`)
      answers.push(() => {
        if (value < 0) refuse(new Error(`no ${value}`))
        else done()
      })
    })
  /** Answers what was sent, until nothing more is sent. */
  async function answer(): Promise<void> {
    for (let next = answers.shift(); next; next = answers.shift()) {
      next()
      await new Promise((later) => setTimeout(later))
    }
  }
  return { sent, send, answer }
}

describe('only the newest is sent', () => {
  it('one at a time, and what was overtaken while waiting is left out', async () => {
    const { sent, send, answer } = slowServer()
    const keep = newestOnly(send)
    const all = [keep('a', 1), keep('a', 2), keep('a', 3), keep('b', 7)]
    expect(sent).toEqual(['a 1', 'b 7'])
    await answer()
    await Promise.all(all)
    expect(sent).toEqual(['a 1', 'b 7', 'a 3'])
    const again = keep('a', 4)
    await answer()
    await again
    expect(sent.at(-1)).toBe('a 4')
  })

  it('says a failure only where nothing newer was kept after it', async () => {
    const { sent, send, answer } = slowServer()
    const keep = newestOnly(send)
    const mended = [keep('a', -1), keep('a', 2)]
    await answer()
    await expect(Promise.all(mended)).resolves.toBeDefined()
    const lost = keep('a', -3)
    const told = expect(lost).rejects.toThrow('no -3')
    await answer()
    await told
    expect(sent).toEqual(['a -1', 'a 2', 'a -3'])
  })
})
