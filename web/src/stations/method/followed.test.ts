import { describe, expect, it } from 'vitest'
import { followed } from './followed'

const matter = {
  label: 'Peening',
  of_job: 'taught.peening',
  of_shop: 'shop_taught.peening',
  choices: [
    { id: 'each', label: 'Each bead' },
    { id: 'none', label: 'Not at all' },
  ],
  who: ['Arc welders.', 'Those who heat.'],
  usual: 'each',
  methods: ['arc_nickel'],
}

describe('what is followed', () => {
  it.each([
    ['', '', 'Each bead', 'usual'],
    ['', 'none', 'Not at all', 'shop'],
    ['each', 'none', 'Each bead', 'job'],
  ])('of a job that says "%s" in a shop that says "%s" is %s', (job, shop, label, from) => {
    expect(followed(matter, job, shop)).toMatchObject({ label, from })
  })

  it('says who does it so', () => {
    expect(followed(matter, 'none', '').who).toBe('Those who heat.')
  })
})
