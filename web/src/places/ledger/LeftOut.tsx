import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useShopWord } from '../../job/useShopWord'

/** Cases that do not count, each with its reason: they stand here until they count again. */
export function LeftOut({ cases }: { cases: readonly Schemas['LeftOutCase'][] }): ReactNode {
  const word = useShopWord()
  return (
    <section aria-label="Left out" className="mt-6 border-t border-scribe pt-3">
      <h2 className="words text-[28px] leading-9">Left out</h2>
      <ul>
        {cases.map((it) => (
          <li key={it.case} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
            <span className="font-semibold line-through">{it.name}</span>
            <span>{it.reason}</span>
            <button
              type="button"
              className="ml-auto min-h-11 min-w-11 text-ash"
              onClick={() => word.mutate({ change: { kind: 'let_in', case: it.case } })}
            >
              Let it count again
            </button>
          </li>
        ))}
      </ul>
      {word.error !== null && <p role="alert">The server is not reached: nothing is changed.</p>}
    </section>
  )
}
