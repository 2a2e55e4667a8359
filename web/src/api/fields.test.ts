import { describe, expect, it } from 'vitest'
import { fieldAt, tableOf, type FieldTable, type Tables } from './fields'

const table = (label: string): FieldTable => ({
  label,
  asks_for: 'length',
  unit_metric: 'mm',
  unit_imperial: 'in',
  choices: [],
  example: '12 mm',
})

const tables: Tables = {
  fields: { 'part.wall': table('Wall at the break') },
  of_crack: { wall: table('Wall along it') },
  of_neighbour: { what: table('Must stay cool') },
  of_picture: { caption: table('In words') },
  of_face: { across: table('Across') },
  of_store: {},
  of_mark: { thickness: table('Thick') },
  taught: [],
  roll: [],
  measured: [],
  went_at: [],
  deeds: [],
  things: [],
  stations: [],
  length_keys: [],
  mass_keys: [],
  temperature_keys: [],
  picture_mb: 20,
}

describe('a field', () => {
  it.each([
    ['part.wall', 'Wall at the break'],
    ['crack.7.wall', 'Wall along it'],
    ['neighbour.7.what', 'Must stay cool'],
    ['picture.7.caption', 'In words'],
    ['face.7.across', 'Across'],
    ['mark.7.thickness', 'Thick'],
    ['crack.7.what', undefined],
    ['crack.wall', undefined],
    ['crack.7.wall.more', undefined],
    ['round.7.wall', undefined],
    ['', undefined],
  ])('%s is called %s', (key, label) => {
    expect(tableOf(tables, key)?.label).toBe(label)
  })

  it('is empty while nobody has filled it in', () => {
    expect(fieldAt(tables, {}, 'part.wall')).toMatchObject({ key: 'part.wall', typed: '', revision: 0 })
  })

  it('holds what was typed and how it was understood', () => {
    const metric = { number: '14', unit: 'mm' }
    const held = { typed: '14', metric, revision: 3 }
    expect(fieldAt(tables, { 'crack.7.wall': held }, 'crack.7.wall')).toMatchObject({
      label: 'Wall along it',
      typed: '14',
      metric,
      revision: 3,
    })
    expect(fieldAt(tables, { 'crack.7.wall': held }, 'crack.8.wall')?.typed).toBe('')
  })

  it('is none where there is none, whatever stands in it', () => {
    const held = { typed: 'x', revision: 1 }
    expect(fieldAt(tables, { nonsense: held }, 'nonsense')).toBeUndefined()
  })
})
