import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { heatColour } from '../../quantity/heat-colour'

export interface TriedProps {
  tried: readonly Schemas['TriedHeat'][]
  target: number
}

/** Every heat at hand on the same two scales: how hot its cold end gets, and how long it takes. */
export function Tried({ tried, target }: TriedProps): ReactNode {
  const shop = useShop()
  const hottest = Math.max(target, ...tried.map((it) => it.ceiling_c)) * 1.04
  const longest = Math.max(1, ...tried.map((it) => it.latest_min ?? it.minutes ?? 0))
  const at = (minutes: number) => (minutes / longest) * 196
  const theme = themeOf(shop)
  return (
    <ul aria-label="Every heat at hand" className="border-t border-rule">
      {tried.map((it) => {
        const gets = Math.min(it.ceiling_c, hottest)
        return (
          <li
            key={it.label}
            className={`grid grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)_minmax(0,1fr)] items-center gap-x-4 border-b border-rule py-1 max-bench:grid-cols-1 ${it.taken ? 'border-l-[3px] border-l-chalk pl-2' : ''}`}
          >
            <p>
              {it.reaches ? <b>{it.label}</b> : <s className="text-ash">{it.label}</s>}
              <span className="block text-ash">{it.words}</span>
              {it.takes !== '' && <span className="block text-ash">{it.takes}</span>}
            </p>
            <svg viewBox="0 0 200 22" className="w-full" aria-hidden>
              <path d="M0 15H200" stroke="var(--rule)" />
              <path d={`M0 15H${(gets / hottest) * 200}`} stroke={heatColour(gets, theme)} strokeWidth="6" />
              <path d={`M${(target / hottest) * 200} 4V21`} stroke="var(--chalk)" strokeWidth="2" />
              <text x="2" y="10" fontSize="14" fill="var(--ash)">
                {it.ceiling_words}
              </text>
            </svg>
            <svg viewBox="0 0 200 22" className="w-full" aria-hidden>
              <path d="M0 15H200" stroke="var(--rule)" />
              {it.minutes != null && (
                <path
                  d={`M0 15H${(it.minutes / longest) * 196}m0 -6v12`}
                  stroke="var(--chalk)"
                  strokeWidth="2"
                  strokeDasharray={it.even ? undefined : '5 4'}
                  fill="none"
                />
              )}
              {/* How soon and how late it may be there: open to the right where it may not be at all. */}
              {it.minutes != null && it.soonest_min != null && (
                <path
                  d={`M${at(it.soonest_min)} 19V21H${it.latest_min == null ? 200 : at(it.latest_min)}${it.latest_min == null ? '' : 'V19'}`}
                  stroke="var(--ash)"
                  fill="none"
                />
              )}
            </svg>
          </li>
        )
      })}
    </ul>
  )
}
