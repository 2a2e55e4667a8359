import type { ReactNode } from 'react'
import { foreseen } from '../quantity/show'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'
import { useNow } from './useNow'

const MIN_MS = 60_000

/** From lighting to touching, as times of the clock; nothing once it is lit, or where nothing gets hot. */
export function LitNow(): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const now = useNow()
  const [line, ...others] = view.plan.lines
  const lit = view.job.rounds.at(-1)?.lit != null
  if (lit || line === undefined || others.length > 0 || line.cold) return null
  // A weight that is only estimated makes it sooner or later.
  const from = view.plan.cooling?.between == null ? 'from' : 'from about'
  const at = (minutes: number) => `${from} ${foreseen(now + minutes * MIN_MS, shop, now)}`
  const said = [
    line.unwrap_at == null ? '' : `unwrap ${at(line.unwrap_at)}`,
    line.touch_at == null ? '' : `touch ${at(line.touch_at)}`,
  ].filter((words) => words !== '')
  if (said.length === 0) return null
  return <span data-testid="lit-now">Lit now: {said.join(', ')}.</span>
}
