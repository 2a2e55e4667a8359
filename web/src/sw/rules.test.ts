import { describe, expect, it } from 'vitest'
import { isAnAnswer, isTooOld, keeping, noLongerNeeded, wayOf, writes } from './rules'

const JOB = '0b6f2f0e-4a53-4be1-9f0c-2f6f3c1f9a10'

describe('a request', () => {
  it.each([
    ['/', true, 'page'],
    [`/jobs/${JOB}/part`, true, 'page'],
    ['/assets/index-B1.js', false, 'asset'],
    ['/crystal.svg', false, 'asset'],
    ['/api/rack', false, 'seen'],
    ['/api/shop', false, 'seen'],
    ['/api/blank', false, 'seen'],
    ['/api/tables/imperial', false, 'seen'],
    [`/api/jobs/${JOB}`, false, 'seen'],
    [`/api/jobs/${JOB}/pictures/${JOB}`, false, 'seen'],
    [`/api/jobs/${JOB}/map/${JOB}/picture/12`, false, 'seen'],
    // What is opened on it may be of an earlier word than the page: it is asked for, or not there.
    [`/api/jobs/${JOB}/ways/arc_nickel`, false, 'leave'],
    [`/api/jobs/${JOB}/figures/cracks.${JOB}.left.drill`, false, 'leave'],
    [`/api/jobs/${JOB}/rehearsal`, false, 'leave'],
    [`/api/jobs/${JOB}/booked`, false, 'leave'],
    [`/api/jobs/${JOB}/map/${JOB}/pages`, true, 'leave'],
    [`/api/jobs/${JOB}/map/${JOB}.svg`, false, 'leave'],
    // What tells whether the server is there, what never ends, and what a person loads as a file.
    ['/api/health', false, 'leave'],
    [`/api/jobs/${JOB}/stream`, false, 'leave'],
    [`/api/jobs/${JOB}/export`, true, 'leave'],
    [`/api/jobs/${JOB}`, true, 'leave'],
    ['/api/door', false, 'leave'],
    ['/sw.js', false, 'leave'],
  ])('for %s (a page: %s): %s', (path, navigates, way) => {
    expect(wayOf('GET', navigates, path)).toBe(way)
  })

  it('that writes is never touched', () => {
    for (const method of ['POST', 'PUT', 'DELETE']) {
      expect(wayOf(method, false, `/api/jobs/${JOB}`)).toBe('leave')
    }
  })
})

describe('what may be another answer from then on', () => {
  it.each([
    ['GET', `/api/jobs/${JOB}`, false],
    ['POST', `/api/jobs/${JOB}/face-heat`, false],
    ['POST', '/api/reckoner/weigh', false],
    ['POST', '/api/units', true],
    ['POST', `/api/jobs/${JOB}/facts`, true],
    ['DELETE', `/api/jobs/${JOB}`, true],
  ])('%s %s: %s', (method, path, does) => {
    expect(writes(method, path)).toBe(does)
  })
})

describe('an answer', () => {
  it('is kept when it is whole', () => {
    expect(keeping(200)).toBe('keep')
  })

  it('that this device is not known makes the browser forget the shop', () => {
    expect(keeping(401)).toBe('forget all')
  })

  it.each([404, 403, 304])('%i leaves what was seen', (status) => {
    expect(keeping(status)).toBe('leave')
  })

  it('of a server in trouble is none', () => {
    expect([200, 401, 404, 499].every(isAnAnswer)).toBe(true)
    expect([500, 502, 503].some(isAnAnswer)).toBe(false)
  })
})

describe('pages of earlier builds', () => {
  it('stay while a page of the one before may be open', () => {
    const kept = ['vanadin-seen', 'vanadin-pages-1', 'vanadin-pages-2', 'vanadin-pages-3']
    expect(noLongerNeeded(kept, 'vanadin-pages-3')).toEqual(['vanadin-pages-1'])
    expect(noLongerNeeded(['vanadin-pages-3'], 'vanadin-pages-3')).toEqual([])
    expect(noLongerNeeded(['vanadin-pages-2', 'vanadin-pages-3'], 'vanadin-pages-3')).toEqual([])
  })
})

describe('what was seen', () => {
  const day = 86_400_000
  it.each([
    ['yesterday', String(99 * day), false],
    ['just under 90 days ago', String(10 * day + 1), false],
    ['90 days ago', String(10 * day), true],
    ['nobody knows when', null, true],
    ['at no time', 'then', true],
  ])('%s', (_, seenAt, old) => {
    expect(isTooOld(seenAt, 100 * day)).toBe(old)
  })
})
