import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { foreseen, inUnits } from '../quantity/show'
import { HotContext, useHot } from '../ui/hot'
import { useJob, useLive } from './JobContext'
import { useShop } from './ShopContext'

/** Says to all that is drawn within it, sheets too, that the part is hot. */
export function WhileHot({ children }: { children: ReactNode }): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const { units } = useShop()
  const { hot } = view.standing
  const known: Schemas['Shown'] | null | undefined =
    live !== null ? inUnits(live, units) : units === 'imperial' ? hot?.imperial : hot?.metric
  const word = view.practice == null ? 'HOT' : 'Practice: HOT'
  const words = hot == null ? '' : [word, known == null ? '' : `${known.number} ${known.unit}`]
  return <HotContext value={words === '' ? '' : words.filter(Boolean).join(', ')}>{children}</HotContext>
}

/** Hot iron looks cold: how hot it is, and until when no bare hand touches it. */
export function HotNow(): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const words = useHot()
  if (words === '') return null
  const { hot, job_now_ms } = view.standing
  const until = hot?.touch_at_ms
  return (
    <p
      role="status"
      data-testid="hot-now"
      className="border-2 border-chalk bg-iron px-3 py-1 text-[17px] leading-6"
    >
      <b className="words text-[22px]">{words}</b>{' '}
      {until == null
        ? 'No bare hand.'
        : `No bare hand before ${foreseen(until, shop, job_now_ms ?? view.now_ms)}.`}
    </p>
  )
}
