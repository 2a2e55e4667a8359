import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { RepairMark } from './RepairMark'

type Line = Pick<
  Schemas['SplitLine'],
  'label' | 'held' | 'held_of_100' | 'low' | 'high' | 'words' | 'drawn' | 'repairs_a_mark' | 'asked'
> & { book?: number | null }

const GRID = 'grid grid-cols-[210px_minmax(0,1fr)_minmax(0,340px)] items-center gap-x-6 max-bench:grid-cols-1'
const POSTS = [0, 25, 50, 75, 100] as const

/** The scale they all stand on: of a hundred repairs, so many hold a year. */
export function HeldScale(): ReactNode {
  return (
    <div className={`${GRID} max-bench:hidden`} aria-hidden="true">
      <span className="text-ash">hold a year, of 100</span>
      <span className="relative block h-6">
        {POSTS.map((post) => (
          <span key={post} className="absolute -translate-x-1/2 text-ash" style={{ left: `${post}%` }}>
            {post}
          </span>
        ))}
      </span>
      <span className="text-ash">each repair</span>
    </div>
  )
}

/** A method, an iron, a school: how many hold, between what, beside the book; and each of its repairs as a mark. */
export function HeldLine({ line, onOpen }: { line: Line; onOpen: () => void }): ReactNode {
  // Of those that nobody was asked about, and that no book knows, there is nothing to draw.
  const told = line.asked > 0 || line.book != null
  return (
    <div className={`${GRID} border-b border-rule py-1`}>
      <h2 className="words text-[24px] leading-7">{line.label}</h2>
      <div>
        <div className="relative h-11" aria-hidden="true">
          {POSTS.map((post) => (
            <span
              key={post}
              className="absolute inset-y-0 border-l border-rule"
              style={{ left: `${post}%` }}
            />
          ))}
          {told && (
            <>
              <span
                className="absolute top-[31px] h-0 border-t-2 border-ash"
                style={{ left: `${line.low}%`, width: `${line.high - line.low}%` }}
              />
              {[line.low, line.high].map((end) => (
                <span
                  key={end}
                  className="absolute top-[25px] h-3 border-l-2 border-ash"
                  style={{ left: `${end}%` }}
                />
              ))}
              {line.book != null && (
                <span
                  className="absolute top-[19px] h-6 border-l-2 border-dotted border-chalk"
                  style={{ left: `${line.book}%` }}
                />
              )}
              <span
                className="absolute top-[24px] size-[15px] -translate-x-1/2 rounded-full border-[5px] border-chalk bg-iron"
                style={{ left: `${line.held}%` }}
              />
              <span
                className="figure absolute top-0 -translate-x-1/2 text-[18px] leading-6"
                style={{ left: `${line.held}%` }}
              >
                {line.held_of_100}
              </span>
            </>
          )}
        </div>
        <p className="sr-only">{line.words}</p>
      </div>
      <button
        type="button"
        onClick={onOpen}
        className="flex min-h-11 min-w-11 flex-wrap items-center gap-1 text-left"
        aria-label={`${line.label}: each repair`}
      >
        {line.drawn.map((became, at) => (
          <RepairMark key={at} became={became} />
        ))}
        {line.repairs_a_mark > 1 && <span className="text-ash">{line.repairs_a_mark} each</span>}
      </button>
    </div>
  )
}
