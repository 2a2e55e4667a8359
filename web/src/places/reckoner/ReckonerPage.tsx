import { useQuery } from '@tanstack/react-query'
import { useId, useState, type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import { calculationsQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useToggleUnits } from '../../keys/useToggleUnits'
import { WORK_SURFACE } from '../../ui/focus'
import { Head } from '../Head'
import { found } from './find'
import { keptHere } from './kept'
import { Sentence } from './Sentence'

/** Each calculation on its own: found by what a welder says, filled in as a sentence. */
export function ReckonerPage(): ReactNode {
  const { units } = useShop()
  const toggleUnits = useToggleUnits()
  const [params, setParams] = useSearchParams()
  const [question, setQuestion] = useState('')
  const id = useId()
  const { data, isError } = useQuery(calculationsQuery(units))
  const all = data?.calculations ?? []
  const shown = found(all, question)
  const opened = all.find((it) => it.id === params.get('of'))
  const lastHere = keptHere()[0]?.id
  // A laptop has room for both: what was asked last here stands there, or the first.
  const beside = opened ?? all.find((it) => it.id === lastHere) ?? all[0]
  const open = (of: string) => setParams({ of })
  const toggle = (where: string) => (
    <button type="button" className={`min-h-11 min-w-11 px-2 text-ash ${where}`} onClick={toggleUnits}>
      {units === 'metric' ? 'mm, °C' : 'in, °F'}
    </button>
  )
  return (
    <div className="mx-auto flex min-h-[calc(100vh-var(--tray,0px))] max-w-[1480px] flex-col">
      <title>Reckoner - Vanadin</title>
      <Head at="reckoner">{toggle('max-bench:hidden')}</Head>
      <main
        {...WORK_SURFACE}
        aria-label="Reckoner"
        className="flex min-h-0 grow gap-8 px-5 pt-4 pb-6 max-bench:flex-col max-bench:gap-4 max-bench:px-4"
      >
        <h1 className="sr-only">Reckoner</h1>
        <nav
          aria-label="Calculations"
          className={`w-[330px] shrink-0 max-bench:w-full ${opened === undefined ? '' : 'max-bench:hidden'}`}
        >
          <label htmlFor={id} className="label mb-1 block">
            <span>What do you want to know?</span>
          </label>
          <input
            id={id}
            type="search"
            value={question}
            placeholder="how long in sand"
            autoComplete="off"
            onChange={(event) => setQuestion(event.target.value)}
            onKeyDown={(event) => {
              const first = shown[0]
              if (event.key === 'Enter' && question.trim() !== '' && first !== undefined) open(first.id)
            }}
            className="min-h-12 w-full border-[1.5px] border-dim bg-raise px-3 text-[19px] font-semibold placeholder:font-normal placeholder:text-ash"
          />
          {isError && <p className="mt-3">The server is not reached, and they were never seen here.</p>}
          {data !== undefined && shown.length === 0 && (
            <p className="mt-3" role="status">
              Nothing here knows these words. Try one of the thing itself: drill, gas, sand, gun.
            </p>
          )}
          <ul className="mt-2">
            {shown.map((it) => (
              <li key={it.id} className="border-b border-rule">
                <Link
                  to={`/reckoner?of=${it.id}`}
                  aria-current={it.id === beside?.id ? 'true' : undefined}
                  className={`flex min-h-11 items-center py-1.5 ${it.id === beside?.id ? 'text-chalk bench:border-l-4 bench:border-chalk bench:pl-2.5 bench:font-semibold' : 'text-ash max-bench:text-chalk'}`}
                >
                  {it.name}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        {beside !== undefined && (
          <section
            aria-label={beside.name}
            className={`min-w-0 grow ${opened === undefined ? 'max-bench:hidden' : ''}`}
          >
            <div className="mb-1 flex justify-between bench:hidden">
              <Link to="/reckoner" className="flex min-h-11 items-center text-ash">
                All calculations
              </Link>
              {toggle('')}
            </div>
            <h2 className="words mb-3 text-[32px] leading-9">{beside.name}</h2>
            <Sentence key={`${beside.id} ${units}`} calculation={beside} />
          </section>
        )}
      </main>
    </div>
  )
}
