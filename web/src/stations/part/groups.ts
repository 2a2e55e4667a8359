import type { Schemas } from '../../api/client'

/** The parts of the sheet and the fields in each, in the order they are asked. */
export interface Group {
  id: string
  title: string
  keys: readonly Schemas['JobField'][]
  /** Those that say something in the summary, where not all do. */
  summed?: readonly Schemas['JobField'][]
}

export const GROUPS: readonly Group[] = [
  { id: 'what', title: 'What it is', keys: ['part.name', 'part.family', 'part.era', 'part.owner'] },
  {
    id: 'hurt',
    title: 'Could it hurt',
    keys: [
      'part.safety_class',
      'part.hurt',
      'part.rpm',
      'part.authority',
      'part.authority_is',
      'part.authority_looked',
      'part.authority_reference',
      'part.authority_day',
    ],
  },
  {
    id: 'size',
    title: 'How big',
    keys: [
      'part.wall',
      'part.shape',
      'part.length',
      'part.width',
      'part.height',
      'part.mass',
      'part.sides',
      'part.break_station',
    ],
    summed: [
      'part.mass',
      'part.length',
      'part.width',
      'part.height',
      'part.wall',
      'part.shape',
      'part.sides',
    ],
  },
  {
    id: 'service',
    title: 'In service',
    keys: [
      'part.service_temperature',
      'part.service_time',
      'part.heat_cycling',
      'part.holds',
      'part.pressure',
      'part.loads',
      'part.fluid_tight',
    ],
  },
  {
    id: 'state',
    title: 'How it came in',
    keys: [
      'part.oil',
      'part.cause',
      'part.old_filler',
      'part.cavity',
      'part.coating',
      'part.hazards',
      'part.place',
    ],
  },
  {
    id: 'wishes',
    title: 'What the owner wants',
    keys: [
      'part.life',
      'part.life_wanted',
      'part.wanted',
      'part.marks',
      'part.seen',
      'part.machined',
      'part.keep_off',
      'part.replacement_price',
      'part.replacement_wait',
      'part.downtime',
    ],
  },
]

/** Before an answer in a summary that says too little alone: a bare 22 mm may be anything. */
export const BEFORE_ANSWER: Readonly<Record<string, string>> = {
  'part.length': 'long ',
  'part.width': 'wide ',
  'part.height': 'high ',
  'part.wall': 'wall ',
  'part.rpm': 'turns at ',
  'part.pressure': 'at ',
  'part.service_temperature': 'up to ',
  'part.life_wanted': 'to last ',
  'part.wanted': 'wanted on ',
  'part.keep_off': 'not to be touched: ',
  'part.replacement_price': 'a new one costs ',
  'part.replacement_wait': 'comes in ',
  'part.downtime': 'a day standing costs ',
  'part.holds': 'holds ',
  'part.cavity': 'hollow: ',
  'part.marks': 'test marks: ',
  'part.seen': 'face: ',
  'part.machined': 'machined: ',
}

/** The part of the sheet in which a field stands. */
export const groupOf = (key: string): string | undefined =>
  GROUPS.find((group) => group.keys.some((known) => known === key))?.id
