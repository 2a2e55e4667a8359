import { describe, expect, it } from 'vitest'
import { atTheMark } from './ruler'

describe('a mark of a ruler', () => {
  it.each([
    [50, 'metric', '50'],
    [0.1 + 0.2, 'metric', '0.3'],
    [-20, 'metric', '-20'],
    [25.4, 'imperial', '1'],
    [6.35, 'imperial', '0.25'],
    [1524, 'imperial', '60'],
  ] as const)('at %d mm in %s says %s', (mm, units, said) => {
    expect(atTheMark(mm, units)).toBe(said)
  })
})
