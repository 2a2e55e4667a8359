import { expect, it } from 'vitest'
import type { Live } from '../api/client'
import { lastRead } from './last-read'

const at = (minutes: number, celsius: number) => ({ minutes, celsius }) as Live

it('shows what was read by hand after the pad was heard last', () => {
  expect(lastRead(at(372.1, 158), at(372.2, 212))?.celsius).toBe(212)
})

it('shows what was heard of the pad since the job was asked for', () => {
  expect(lastRead(at(372.5, 157), at(372.2, 212))?.celsius).toBe(157)
  expect(lastRead(at(372.5, 157), at(372.5, 158))?.celsius).toBe(157)
})

it('shows the one there is, and nothing where nothing was read', () => {
  expect(lastRead(at(1, 30), undefined)?.celsius).toBe(30)
  expect(lastRead(null, at(2, 40))?.celsius).toBe(40)
  expect(lastRead(null, null)).toBeNull()
})
