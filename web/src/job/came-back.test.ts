import { describe, expect, it } from 'vitest'
import { fromAJob, toTheBench } from './came-back'

describe('a part that came back', () => {
  it('is told to the break bench as it is, whatever its name', () => {
    const back = {
      name: 'Lever & arm, 50 % "A"',
      iron: 'ductile',
      joined: 'torch_braze',
      thickness: '1/2 in',
      broke: 'toe',
    } as const
    const address = new URL(toTheBench(back), 'http://shop')
    expect(address.pathname).toBe('/ledger')
    expect(fromAJob(address.searchParams)).toEqual(back)
  })

  it('has nowhere to break where nobody said', () => {
    const address = toTheBench({
      name: 'Lever',
      iron: 'gray',
      joined: 'torch_braze',
      thickness: '',
      broke: null,
    })
    expect(fromAJob(new URL(address, 'http://shop').searchParams)?.broke).toBe('')
  })

  it('is not there where the address names none', () => {
    expect(fromAJob(new URLSearchParams('iron=gray'))).toBeNull()
  })
})
