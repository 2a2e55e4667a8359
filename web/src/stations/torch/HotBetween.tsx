import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { KeepOff } from '../../job/KeepOff'
import { useJob, useLive } from '../../job/JobContext'
import { ReadingSheet } from '../../job/ReadingSheet'
import { useShop } from '../../job/ShopContext'
import { useShortcut } from '../../keys/useShortcut'
import { foreseen, inUnits } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import { TorchLog } from './TorchLog'

export interface HotBetweenProps {
  onSay: (entry: Schemas['TorchEntry']) => string
}

/** A round that is not lit yet, and a part that is still hot from the one before. */
export function HotBetween({ onSay }: HotBetweenProps): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const shop = useShop()
  const [reading, setReading] = useState(false)
  useShortcut('l', () => setReading(true))
  const { hot, next } = view.standing
  const shown = live === null ? null : inUnits(live, shop.units)
  const until =
    next.at_ms == null ? '' : ` ${foreseen(next.at_ms, shop, view.standing.job_now_ms ?? view.now_ms)}`
  return (
    <div className="mx-auto grid min-h-0 w-full grow content-start gap-x-8 gap-y-4 overflow-auto bench:grid-cols-[1fr_360px]">
      <div className="flex flex-col gap-4">
        <p className="flex flex-wrap items-end gap-x-6">
          <span className="text-[110px] leading-[100px] font-[820] [font-family:var(--font-words)]">HOT</span>
          {shown !== null && (
            <span className="figure text-[100px] leading-[90px]" data-testid="torch-now">
              {shown.number} <span className="text-[44px]">{shown.unit}</span>
            </span>
          )}
        </p>
        <KeepOff />
        <p className="text-[22px] leading-7" data-testid="torch-next">
          <b>
            {next.verb}
            {until}.
          </b>
        </p>
        <p className="text-ash">
          Round {view.job.rounds.length} is not lit. It can be mapped and planned meanwhile; lighting it again
          while it is warm saves the heat.
        </p>
      </div>
      <div className="flex flex-col gap-2.5">
        {hot?.covered === false && hot.unwrapped === false && (
          <Plate large testId="torch-main" onPress={() => onSay({ kind: 'covered' })}>
            Covered
          </Plate>
        )}
        <Button large onPress={() => setReading(true)}>
          Reading
        </Button>
        <TorchLog />
      </div>
      <ReadingSheet kind={reading ? 'reading' : null} onClose={() => setReading(false)} onSay={onSay} />
    </div>
  )
}
