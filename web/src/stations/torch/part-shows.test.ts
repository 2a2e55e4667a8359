import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { shownByPart } from './part-shows'

type Entry = Schemas['LogEntry']

const said = (entry: object, struck: string | null = null) => ({ entry, struck }) as unknown as Entry
const bead = said({ kind: 'bead' })
const trouble = (seen: string) => said({ kind: 'trouble', seen })

describe('what the made-up part shows', () => {
  it('stands until something is done about it, or the next bead is laid', () => {
    expect(shownByPart([bead, trouble('ran_on')])).toEqual(['ran_on'])
    expect(shownByPart([bead, trouble('ran_on'), said({ kind: 'reading' })])).toEqual(['ran_on'])
    expect(shownByPart([bead, trouble('ran_on'), said({ kind: 'did', what: 'ground_out' })])).toEqual([])
    expect(shownByPart([bead, trouble('ran_on'), bead])).toEqual([])
    expect(shownByPart([])).toEqual([])
  })

  it('is said once, and not when it was crossed out', () => {
    expect(shownByPart([bead, trouble('pinholes'), trouble('pinholes')])).toEqual(['pinholes'])
    expect(shownByPart([bead, said({ kind: 'trouble', seen: 'pinholes' }, 'wrong')])).toEqual([])
  })
})
