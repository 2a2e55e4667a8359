import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { useLocation } from 'react-router'
import { ledgerQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { WORK_SURFACE } from '../../ui/focus'
import { Head } from '../Head'
import { BreakBench } from './BreakBench'
import { Ask } from './Ask'
import { CasesSheet, type Opened } from './CasesSheet'
import { FaultLine } from './FaultLine'
import { HeldScale, HeldLine } from './HeldLine'
import { HonestChart } from './HonestChart'
import { LearnedLine } from './LearnedLine'
import { LeftOut } from './LeftOut'
import { Prices } from './Prices'
import { SettingsWorked, Splits } from './Splits'

const TABLES = [
  ['repairs.csv', 'Repairs'],
  ['learned.csv', 'What was learned'],
  ['faults.csv', 'What went wrong'],
  ['moved.csv', 'What moved'],
  ['used.csv', 'What was used'],
  ['honest.csv', 'Odds against outcomes'],
  ['coupons.csv', 'Broken coupons'],
] as const

/** What the shop has learned: every repair a mark on the line of its method, every learned figure beside the book's. */
export function LedgerPage(): ReactNode {
  const { revision, units } = useShop()
  const { data: wall, isError } = useQuery({
    ...ledgerQuery(revision, units),
    placeholderData: keepPreviousData,
  })
  const client = useQueryClient()
  const [opened, setOpened] = useState<Opened | null>(null)
  const { hash } = useLocation()
  const shown = wall !== undefined
  // A plan leads to what it learned from.
  useEffect(() => {
    if (shown && hash !== '') document.getElementById(hash.slice(1))?.scrollIntoView()
  }, [shown, hash])
  return (
    <div className="mx-auto flex min-h-[calc(100vh-var(--tray,0px))] max-w-[1480px] flex-col">
      <title>Ledger - Vanadin</title>
      <Head at="ledger" />
      <main {...WORK_SURFACE} aria-label="Ledger" className="grow px-5 pt-4 pb-8 max-bench:px-4">
        {isError && wall === undefined && (
          <p>The server is not reached, and the ledger was not seen here before.</p>
        )}
        {wall !== undefined && (
          <>
            <h1 className="words text-[38px] leading-10 max-bench:text-[30px] max-bench:leading-9">
              {wall.heading}
            </h1>
            <p className="mt-1">{wall.said}</p>
            {wall.methods.length > 0 && <Ask onOpen={setOpened} />}
            {wall.methods.length > 0 && (
              <section aria-label="How repairs held" className="mt-4">
                <HeldScale />
                {wall.methods.map((line) => (
                  <HeldLine
                    key={line.method}
                    line={line}
                    onOpen={() => setOpened({ title: line.label, of: 'held', line: line.method })}
                  />
                ))}
                <p className="mt-2 small text-ash">
                  Full: holds. Half: with a fault. Struck: failed. Ring: not asked yet. Dashed: by the book
                  alone.
                </p>
              </section>
            )}
            {wall.splits.length > 0 && <Splits splits={wall.splits} onOpen={setOpened} />}
            {wall.settings.length > 0 && <SettingsWorked settings={wall.settings} onOpen={setOpened} />}
            {wall.honest != null && <HonestChart honest={wall.honest} />}
            {wall.learned.length > 0 && (
              <section
                id="learned"
                aria-label="What this shop has learned"
                className="mt-6 border-t border-scribe pt-3"
              >
                <h2 className="words mb-1 text-[28px] leading-9">What this shop has learned</h2>
                {wall.learned.map((line) => (
                  <LearnedLine
                    key={line.name}
                    line={line}
                    onOpen={() => setOpened({ title: line.name, of: 'learned', line: line.name })}
                  />
                ))}
              </section>
            )}
            {wall.faults.length > 0 && (
              <section aria-label="What went wrong" className="mt-6 border-t border-scribe pt-3">
                <h2 className="words mb-1 text-[28px] leading-9">What went wrong at the torch</h2>
                {wall.faults.map((line) => (
                  <FaultLine
                    key={line.seen}
                    line={line}
                    onOpen={() => setOpened({ title: line.label, of: 'fault', line: line.label })}
                  />
                ))}
              </section>
            )}
            {wall.prices != null && <Prices prices={wall.prices} onOpen={setOpened} />}
            <BreakBench
              lines={wall.bench}
              units={units}
              onOpen={(line) =>
                setOpened({ title: line.name, of: 'bench', line: line.name, cases: line.coupons })
              }
              onSaid={() => void client.invalidateQueries({ queryKey: ['ledger'] })}
            />
            {wall.left_out.length > 0 && <LeftOut cases={wall.left_out} />}
            <p className="mt-6 flex flex-wrap items-center gap-x-4 border-t border-rule pt-2 text-ash">
              As a table, without names:
              {TABLES.map(([file, words]) => (
                <a
                  key={file}
                  href={`/api/ledger/${file}`}
                  download={file}
                  className="flex min-h-11 items-center underline"
                >
                  {words}
                </a>
              ))}
            </p>
          </>
        )}
      </main>
      <CasesSheet opened={opened} onClose={() => setOpened(null)} />
    </div>
  )
}
