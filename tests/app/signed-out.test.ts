import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { call } from '~/calls'
import { noteSomebody } from '~/signed-out'

const gone = vi.fn()
const refused = () => Promise.reject(Object.assign(new Error('Please sign in.'), { status: 401 }))

/** At a page, with this in focus. */
function at(pathname: string, focused: 'a' | 'input' = 'a'): void {
  vi.stubGlobal('location', { pathname, assign: gone })
  vi.stubGlobal('document', { activeElement: { matches: (css: string) => css.split(', ').includes(focused) } })
}

beforeEach(() => {
  gone.mockClear()
  vi.stubGlobal('$fetch', refused)
  noteSomebody(true)
})
afterEach(() => {
  noteSomebody(false)
  vi.unstubAllGlobals()
})

describe('a session that has ended elsewhere', () => {
  it.each([
    ['/', '/sign-in?ended=1&next=%2F'],
    ['/clients', '/sign-in?ended=1&next=%2Fclients'],
    ['/clients/3f/check-ins', '/sign-in?ended=1&next=%2Fclients%2F3f%2Fcheck-ins'],
  ])('leads from %s to sign-in and back, once', async (path, to) => {
    at(path)
    await Promise.all([
      expect(call('GET', '/api/floor')).rejects.toThrow('Please sign in.'),
      expect(call('GET', '/api/clients')).rejects.toThrow('Please sign in.'),
    ])
    expect(gone.mock.calls).toEqual([[to]])
  })

  it('leaves what is being sent where it was typed, with the sentence', async () => {
    at('/clients/new')
    await expect(call('POST', '/api/clients', {})).rejects.toThrow('Please sign in.')
    expect(gone).not.toHaveBeenCalled()
  })

  it('takes nobody away from a field, but at the next press', async () => {
    at('/', 'input')
    await expect(call('GET', '/api/floor')).rejects.toThrow('Please sign in.')
    expect(gone).not.toHaveBeenCalled()
    at('/')
    await expect(call('GET', '/api/floor')).rejects.toThrow('Please sign in.')
    expect(gone).toHaveBeenCalledOnce()
  })

  it.each(['/measure/3f', '/sign-in', '/hand-in', '/board'])('does not lead away from %s', async (path) => {
    at(path)
    await expect(call('GET', '/api/checkins/3f')).rejects.toThrow('Please sign in.')
    expect(gone).not.toHaveBeenCalled()
  })

  it('is none where nobody was signed in: that page asks by itself', async () => {
    at('/clients')
    noteSomebody(false)
    await expect(call('GET', '/api/me')).rejects.toThrow('Please sign in.')
    expect(gone).not.toHaveBeenCalled()
  })
})
