import type { Schemas } from '../../api/client'

export interface Followed {
  label: string
  who: string
  /** Whose choice it is. */
  from: 'job' | 'shop' | 'usual'
}

/** What is followed in one matter: the job's own choice, else the shop's, else the usual. */
export function followed(matter: Schemas['TaughtTable'], ofJob: string, ofShop: string): Followed {
  const from = ofJob !== '' ? 'job' : ofShop !== '' ? 'shop' : 'usual'
  const id = { job: ofJob, shop: ofShop, usual: matter.usual }[from]
  const at = matter.choices.findIndex((choice) => choice.id === id)
  return { label: matter.choices[at]?.label ?? id, who: matter.who[at] ?? '', from }
}
