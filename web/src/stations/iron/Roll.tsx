import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useTables } from '../../job/TablesContext'
import { Drawing } from '../../job/tests-of-iron/Drawing'

export type Pocket = Schemas['LookTest'] | Schemas['MeasuredTest']

export interface RollProps {
  open: Pocket
  next: Pocket | undefined
  onOpen: (pocket: Pocket) => void
}

/** The tool roll: a pocket for each test, what it showed in it once it is done. */
export function Roll({ open, next, onOpen }: RollProps): ReactNode {
  const { view } = useJob()
  const { roll, measured } = useTables()
  const { iron, part } = view.plan
  const counting = (test: Pocket) =>
    iron.found.findLast(
      (line) => line.test === test && (line.state === 'counts' || line.state === 'counts_by_half'),
    )
  return (
    <div className="grid grid-cols-[repeat(7,minmax(0,1fr))_1.7fr] border border-scribe bg-slab max-bench:grid-cols-4">
      {roll.map((test) => {
        const found = counting(test.test)
        const forbidden = part.forbidden.find((known) => known.test === test.test)?.why
        return (
          <button
            key={test.test}
            type="button"
            id={`roll-${test.test}`}
            aria-pressed={open === test.test}
            onClick={() => onOpen(test.test)}
            className="relative flex min-h-[132px] min-w-0 flex-col items-center border-r border-dashed border-scribe px-1 pt-1.5 aria-pressed:bg-raise aria-pressed:outline-2 aria-pressed:-outline-offset-2 aria-pressed:outline-chalk max-bench:min-h-[92px] max-bench:border-b"
          >
            <span className="words text-[22px] leading-6 max-bench:text-[19px]">{test.label}</span>{' '}
            <span className="flex h-[72px] items-center justify-center max-bench:h-[46px]">
              {found === undefined ? (
                <Drawing
                  name={`tool.${test.test}`}
                  className={`w-[42px] ${forbidden === undefined ? '' : 'opacity-40'}`}
                />
              ) : (
                <Drawing name={`${test.test}.${found.outcome}`} className="w-[92px] max-bench:w-[64px]" />
              )}
            </span>
            <span
              className={`truncate small ${next === test.test ? 'font-bold' : 'text-ash'} ${found === undefined && forbidden === undefined && next !== test.test ? 'max-bench:hidden' : ''}`}
            >
              {found !== undefined
                ? 'done'
                : forbidden !== undefined
                  ? 'not allowed'
                  : next === test.test
                    ? `next, ${test.minutes} min`
                    : `${test.minutes} min`}
            </span>
            <span className="sr-only"> {found?.words ?? forbidden}</span>
          </button>
        )
      })}
      <div className="grid grid-rows-3 max-bench:col-span-4 max-bench:grid-cols-3 max-bench:grid-rows-1">
        {measured.map((test) => {
          const found = counting(test.test)
          return (
            <button
              key={test.test}
              type="button"
              id={`roll-${test.test}`}
              aria-pressed={open === test.test}
              onClick={() => onOpen(test.test)}
              className="flex min-h-11 min-w-0 items-center gap-2 border-b border-dashed border-scribe px-2 text-left last:border-b-0 aria-pressed:bg-raise aria-pressed:outline-2 aria-pressed:-outline-offset-2 aria-pressed:outline-chalk"
            >
              <Drawing name={`tool.${test.test}`} className="w-[24px]" />
              <span className="min-w-0 leading-[17px]">
                <b className="block">{test.label}</b>
                {found !== undefined && <span className="block truncate small text-ash">done</span>}
              </span>
            </button>
          )
        })}
      </div>
    </div>
  )
}
