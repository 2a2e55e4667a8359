import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { SeenDrawing } from './SeenDrawing'
import { StopWays } from './StopWays'

export interface TroubleSheetProps {
  open: boolean
  onClose: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
  /** It must stop. */
  onStop: () => void
}

/** It does not go well: what is seen, what may be behind it and why, what to do; and whether to go on at all. */
export function TroubleSheet({ open, onClose, onSay, onStop }: TroubleSheetProps): ReactNode {
  const { view } = useJob()
  const [seen, setSeen] = useState<Schemas['Symptom'] | null>(null)
  const trouble = view.plan.torch?.trouble ?? []
  const found = trouble.find((it) => it.seen === seen)
  const rule = view.plan.torch?.stop_rule ?? null
  const close = () => {
    setSeen(null)
    onClose()
  }
  return (
    <Sheet
      title={found?.words ?? 'What do you see?'}
      open={open}
      wide={found === undefined}
      onOpenChange={(next) => {
        if (!next) close()
      }}
    >
      {found === undefined ? (
        <div className="grid grid-cols-2 gap-2 bench:grid-cols-3">
          {trouble.map((it) => (
            <Button key={it.seen} large onPress={() => setSeen(it.seen)}>
              <span className="flex flex-col items-center gap-1 py-1.5 text-[17px] leading-5 whitespace-normal">
                <SeenDrawing seen={it.seen} />
                {it.words}
              </span>
            </Button>
          ))}
        </div>
      ) : (
        <ol className="flex flex-col gap-3">
          {found.causes.map((cause) => (
            <li key={cause.id} className="border-b border-rule pb-3">
              <p className="flex items-baseline justify-between gap-3 text-[19px] leading-6">
                <b>{cause.words}</b>
                <span className="figure shrink-0 text-[22px]">{cause.of_100} of 100</span>
              </p>
              {cause.because !== '' && <p className="text-ash">{cause.because}</p>}
              <p className="my-1 text-[17px] leading-[22px]">{cause.act}</p>
              <Button
                onPress={() => {
                  onSay({ kind: 'trouble', seen: found.seen, cause: cause.id })
                  close()
                }}
              >
                That is it
              </Button>
            </li>
          ))}
          <li className="flex flex-wrap gap-2">
            <Button
              onPress={() => {
                onSay({ kind: 'trouble', seen: found.seen })
                close()
              }}
            >
              None of these
            </Button>
            <Button onPress={() => setSeen(null)}>Something else</Button>
          </li>
        </ol>
      )}
      {rule !== null && (
        <StopWays
          rule={rule}
          onStop={() => {
            close()
            onStop()
          }}
        />
      )}
    </Sheet>
  )
}
