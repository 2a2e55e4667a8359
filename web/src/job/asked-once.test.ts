import { beforeEach, describe, expect, it, vi } from 'vitest'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, text: string) => kept.set(key, text),
})

/** As a page that was just opened has it. */
async function opened() {
  vi.resetModules()
  return (await import('./asked-once')).askedOnce
}

describe('what is odd is asked back once', () => {
  beforeEach(() => kept.clear())

  it('and not again on this device, also after the page was closed', async () => {
    const asked = await opened()
    expect(asked.answered()).toEqual([])
    asked.answer('job part.mass 140 kg')
    expect((await opened()).answered()).toEqual(['job part.mass 140 kg'])
  })

  it('of many answers the oldest is forgotten first', async () => {
    const asked = await opened()
    for (let at = 0; at < 205; at++) asked.answer(`job ${at}`)
    expect(asked.answered()).toHaveLength(200)
    expect(asked.answered()).not.toContain('job 4')
    expect(asked.answered()).toContain('job 5')
  })

  it.each([
    ['torn', '["job a'],
    ['of another kind', '{"a":1}'],
    ['with what is no word in it', '[1, null]'],
  ])('a store that is %s asks again', async (_, text) => {
    kept.set('vanadin.asked-back', text)
    expect((await opened()).answered()).toEqual([])
  })
})
