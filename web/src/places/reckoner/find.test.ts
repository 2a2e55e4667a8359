import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { asked, found } from './find'

const of = (id: string, name: string, found_by: string, words: string): Schemas['CalculationView'] => ({
  id,
  name,
  found_by,
  sentence: [{ kind: 'words', of: words }],
  blanks: [],
  fact: null,
})

const ALL = [
  of('out', 'From the oven to the bench', 'out of the heat time left before too cold', 'stays over'),
  of('pins', 'Pins round a hole or a patch', 'stitch how many', 'takes pins'),
  of('tap', 'Pin and tap drill for a wall', 'stitch thread', 'is stitched with'),
  of('gun', 'What the gun shows when the iron is right', 'infrared emissivity', 'a gun set to'),
]

describe('finding a calculation by what a welder says', () => {
  it.each([
    ['how long from the oven to the bench', 'out'],
    ['tap drill', 'tap'],
    ['what will the gun show', 'gun'],
    ['how many pins round a hole', 'pins'],
    ['Infrared?', 'gun'],
  ])('%s', (question, first) => {
    expect(found(ALL, question)[0]?.id).toBe(first)
  })

  it('shows all of them in their order where nothing was asked', () => {
    expect(found(ALL, '  ')).toEqual(ALL)
  })

  it('shows none where no word is known', () => {
    expect(found(ALL, 'carburettor')).toEqual([])
  })

  it('keeps what says nothing where nothing else was said', () => {
    expect(asked('how is it')).toEqual(['how', 'is', 'it'])
    expect(asked('how is the sand')).toEqual(['sand'])
  })
})
