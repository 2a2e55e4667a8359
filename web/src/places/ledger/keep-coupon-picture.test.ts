import { afterEach, describe, expect, it, vi } from 'vitest'
import { keepCouponPicture } from './keep-coupon-picture'

const answers = (answer: () => Promise<Response>) => vi.stubGlobal('fetch', vi.fn(answer))

describe('a picture of a coupon', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('is kept, or it is said why not', async () => {
    answers(async () => Promise.resolve(new Response(null, { status: 204 })))
    expect(await keepCouponPicture('one', new Blob(['x']))).toBe('')
    const body = JSON.stringify({ problems: [{ field: 'picture', message: 'this is no picture' }] })
    answers(async () => Promise.resolve(new Response(body, { status: 422 })))
    expect(await keepCouponPicture('one', new Blob(['x']))).toBe('this is no picture')
    answers(async () => Promise.reject(new TypeError('no way there')))
    expect(await keepCouponPicture('one', new Blob(['x']))).toContain('not reached')
    answers(async () => Promise.resolve(new Response('a proxy', { status: 502 })))
    expect(await keepCouponPicture('one', new Blob(['x']))).toContain('not reached')
  })
})
