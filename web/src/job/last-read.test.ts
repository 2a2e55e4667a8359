import { describe, expect, it } from 'vitest'
import type { Live } from '../api/client'
import { lastRead } from './last-read'

const at = (minutes: number, celsius: number) => ({ minutes, celsius }) as Live
const heard = (minutes: number, celsius: number, revision = 7) => ({ live: at(minutes, celsius), revision })
const job = (live: Live | null | undefined, revision = 7) => ({ live, revision })

describe('what was read last', () => {
  it('is what was read by hand after the pad was heard last', () => {
    expect(lastRead(heard(372.1, 158), job(at(372.2, 212)))?.celsius).toBe(212)
  })

  it('is what was heard of the pad since the job was asked for', () => {
    expect(lastRead(heard(372.5, 157), job(at(372.2, 212)))?.celsius).toBe(157)
    expect(lastRead(heard(372.5, 157), job(at(372.5, 158)))?.celsius).toBe(157)
    expect(lastRead(heard(1, 30), job(null))?.celsius).toBe(30)
  })

  it('is the one there is, and nothing where nothing was read', () => {
    expect(lastRead(heard(1, 30), undefined)?.celsius).toBe(30)
    expect(lastRead(null, job(at(2, 40)))?.celsius).toBe(40)
    expect(lastRead(null, job(null))).toBeNull()
    expect(lastRead(null, undefined)).toBeNull()
  })

  it('is nothing any more where the lighting it was heard of was cancelled since', () => {
    expect(lastRead(heard(41, 180), job(null, 8))).toBeNull()
    expect(lastRead(heard(41, 180), job(at(0, 21), 9))?.celsius).toBe(21)
  })

  it('is what another pad read where the one that was heard had slipped', () => {
    expect(lastRead(heard(41, 96), job(at(40.5, 204), 8))?.celsius).toBe(204)
  })

  it('is what is heard once the job is known as it is since', () => {
    expect(lastRead(heard(0.2, 24, 9), job(at(0, 21), 9))?.celsius).toBe(24)
  })
})
