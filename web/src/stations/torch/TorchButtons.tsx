import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { Plate } from '../../ui/Plate'
import type { TorchSheet } from './TorchSheets'

export interface TorchButtonsProps {
  torch: Schemas['TorchPlan']
  covered: boolean
  /** Nothing is left to be laid or set. */
  finished: boolean
  /** What is set, fitted or filled cold is not heated. */
  pins: boolean
  /** It is heated. */
  heats: boolean
  /** It can be said that it goes wrong, or stopped. */
  stops: boolean
  /** What stands on the plate. */
  words: string
  onMain: () => void
  onSay: (entry: Schemas['TorchEntry']) => void
  onSheet: (sheet: TorchSheet) => void
  onStop: () => void
}

/** What is pressed with a glove, at the foot of what is read, however long that is. */
export function TorchButtons(props: TorchButtonsProps): ReactNode {
  const { torch, covered, finished, pins, heats, stops, words, onMain, onSay, onSheet, onStop } = props
  return (
    <div className="flex flex-col gap-[9px] bg-iron bench:sticky bench:bottom-0 bench:z-10 bench:pt-1">
      <div className="grid gap-[9px] bench:grid-cols-[minmax(0,440px)_minmax(0,1fr)]">
        {!covered && !(finished && pins) && (
          <Plate large testId="torch-main" onPress={onMain}>
            {words}
          </Plate>
        )}
        <div className="grid grid-cols-3 gap-[9px]">
          {!pins && !covered && torch.peen && (
            <Button large onPress={() => onSay({ kind: 'peened' })}>
              Peened
            </Button>
          )}
          {!pins && !covered && heats && (
            <Button large onPress={() => onSay({ kind: 'reheated' })}>
              Reheated
            </Button>
          )}
          <Button large onPress={() => onSheet('reading')}>
            Reading
          </Button>
        </div>
      </div>
      <div className="grid grid-cols-2 gap-[9px] sm:grid-cols-3 bench:grid-cols-[1.5fr_1.4fr_1fr_0.8fr_0.8fr] bench:[&>button]:min-h-14 bench:[&>.stops>button]:min-h-14 [&>button]:px-2">
        {stops && (
          <div className="stops [&>button]:px-2">
            {torch.trouble.length > 0 && (
              <Button large onPress={() => onSheet('trouble')}>
                <span className="whitespace-normal">It does not go well</span>
              </Button>
            )}
            {/* With all beads laid the plate covers it: nothing is stopped. */}
            {!pins && !finished && (
              <Button large onPress={onStop}>
                <span aria-hidden className="size-5 shrink-0 border-[2.5px] border-chalk" /> It must stop
              </Button>
            )}
          </div>
        )}
        {/* What is covered is looked at when it is cold. */}
        {!covered && (
          <Button large onPress={() => onSheet('ran_on')}>
            It ran on
          </Button>
        )}
        <Button large onPress={() => onSheet('note')}>
          Note
        </Button>
        {!covered && !pins && (
          <Button large onPress={() => onSheet('more')}>
            More
          </Button>
        )}
      </div>
    </div>
  )
}
