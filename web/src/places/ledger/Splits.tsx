import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import type { Opened } from './CasesSheet'
import { HeldLine } from './HeldLine'
import { RepairMark } from './RepairMark'

interface SplitsProps {
  splits: readonly Schemas['Split'][]
  onOpen: (opened: Opened) => void
}

/** The same repairs by iron, school, place and burden. */
export function Splits({ splits, onOpen }: SplitsProps): ReactNode {
  return (
    <section aria-label="The same repairs told apart" className="mt-6 border-t border-scribe pt-3">
      <h2 className="words mb-1 text-[28px] leading-9">The same repairs, told apart</h2>
      {splits.map((split) => (
        <section key={split.name} aria-label={split.name} className="mt-2">
          <h3 className="label">{split.name}</h3>
          {split.lines.map((line) => (
            <HeldLine
              key={line.label}
              line={line}
              onOpen={() => onOpen({ title: line.label, of: 'split', line: line.label })}
            />
          ))}
        </section>
      ))}
      <p className="small mt-2 text-ash">Dashed: what they had been given when they were handed over.</p>
    </section>
  )
}

interface SettingsProps {
  settings: readonly Schemas['SettingWorked'][]
  onOpen: (opened: Opened) => void
}

/** What was set on which wall at which heat, and how it held. */
export function SettingsWorked({ settings, onOpen }: SettingsProps): ReactNode {
  return (
    <section aria-label="What was set" className="mt-6 border-t border-scribe pt-3">
      <h2 className="words mb-1 text-[28px] leading-9">What was set, and how it held</h2>
      {settings.map((it) => (
        <button
          key={`${it.method}: ${it.on}: ${it.set}`}
          type="button"
          onClick={() => onOpen({ title: it.set, of: 'setting', line: `${it.method}: ${it.on}: ${it.set}` })}
          className="grid min-h-12 w-full grid-cols-[320px_minmax(0,1fr)_minmax(0,400px)] items-center gap-x-6 border-b border-rule py-2 text-left max-bench:grid-cols-1"
        >
          <span>
            <b className="block">{it.method}</b>
            <span className="text-ash">{it.on}</span>
          </span>
          <span className="font-semibold">{it.set}</span>
          <span className="flex flex-wrap items-center gap-1">
            {it.drawn.map((became, at) => (
              <RepairMark key={at} became={became} />
            ))}
            <span className="basis-full text-ash">{it.words}</span>
          </span>
        </button>
      ))}
    </section>
  )
}
