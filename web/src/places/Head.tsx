import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { Crystal } from '../ui/Crystal'
import { PLACES, type Place } from './table'

export interface HeadProps {
  at: Place
  children?: ReactNode
}

/** The top of the places that are not a job. */
export function Head({ at, children }: HeadProps): ReactNode {
  const here =
    'words text-[32px] max-bench:text-[24px] leading-9 text-chalk min-h-11 min-w-11 flex items-center'
  const there = 'text-ash min-h-11 min-w-11 flex items-center justify-center'
  return (
    <header className="flex min-h-14 items-center gap-5 border-b border-scribe px-5 py-1.5 max-bench:flex-wrap max-bench:gap-x-3 max-bench:gap-y-0 max-bench:px-4">
      <span className="max-bench:hidden">
        <Crystal />
      </span>
      <nav className="flex items-center gap-6 max-bench:gap-1.5">
        {PLACES.map(({ place, path, word }) => (
          <Link
            key={place}
            to={path}
            className={place === at ? here : there}
            aria-current={place === at ? 'page' : undefined}
          >
            {word}
          </Link>
        ))}
      </nav>
      <div className="ml-auto flex shrink-0 items-center gap-5 max-bench:gap-2">{children}</div>
    </header>
  )
}
