import { keepPreviousData, usePrefetchQuery, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState, useSyncExternalStore, type ReactNode } from 'react'
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router'
import { outbox } from '../../api/queue/outbox'
import { begun, typedAndWaiting } from '../../api/queue/queue'
import { blankQuery, rackQuery, shopQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { pathOf } from '../../job/stations'
import { WORK_SURFACE } from '../../ui/focus'
import { Head } from '../Head'
import { ImportButton } from './ImportButton'
import { RackLines } from './RackLines'
import { UnitsAsked } from './UnitsAsked'

/** Every job as a thin heat line, the one that needs a hand first on top. */
export function RackPage(): ReactNode {
  const [params, setParams] = useSearchParams()
  const navigate = useNavigate()
  const queryClient = useQueryClient()
  const away = params.has('away')
  // Typed faster than an address changes: the words live here, the address follows.
  const [words, setWords] = useState(params.get('find') ?? '')
  const search = useRef<HTMLInputElement>(null)
  const { key } = useLocation()
  const finding = params.has('find')
  useEffect(() => {
    if (finding) search.current?.focus()
  }, [finding, key])
  const find = useSettled(words, 150)
  // While one finds, what was found before stays until there is something else.
  const rack = useQuery({ ...rackQuery(away, find, 0), placeholderData: keepPreviousData })
  const [problem, setProblem] = useState('')
  /** Enter opens what was found where nothing else was. */
  const openTheOnly = async (typed: string) => {
    try {
      const { total, lines } = await queryClient.fetchQuery(rackQuery(away, typed, 0))
      const [only] = lines
      if (total === 1 && only !== undefined)
        void navigate(`/jobs/${only.id}/${pathOf(only.standing.station)}`)
    } catch {
      // The page says by itself that the server is not reached.
    }
  }
  const begin = useCallback(
    () => void navigate(`/jobs/${outbox.begin()}/part`, { replace: true, state: { field: 'part.name' } }),
    [navigate],
  )
  const wanted = params.has('new')
  const made = useRef(false)
  useEffect(() => {
    if (wanted && !made.current) {
      made.current = true
      begin()
    }
  }, [wanted, begin])
  const damaged = rack.data?.damaged ?? []
  // Another tab changed the shop: what is shown here goes by it.
  const { revision } = useShop()
  usePrefetchQuery(blankQuery(revision))
  const shopRevision = rack.data?.shop_revision ?? revision
  useEffect(() => {
    if (shopRevision > revision) void queryClient.invalidateQueries({ queryKey: shopQuery().queryKey })
  }, [shopRevision, revision, queryClient])
  const button = 'min-h-11 border-[1.5px] border-scribe px-4 font-semibold whitespace-nowrap'
  const more = (
    <>
      <button
        type="button"
        className={button}
        onClick={() => {
          setWords('')
          setParams(away ? {} : { away: '' })
        }}
      >
        {away ? 'On the rack' : 'Put away'}
      </button>
      <ImportButton
        onDone={(id, told) => void navigate(`/jobs/${id}/part`, { state: { told } })}
        onProblem={setProblem}
      />
    </>
  )
  return (
    <div className="mx-auto max-w-[1480px]">
      <title>{away ? 'Put away - Vanadin' : 'Rack - Vanadin'}</title>
      <Head at="rack">
        <input
          type="search"
          aria-label="Find a job"
          placeholder="Find"
          value={words}
          ref={search}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return
            event.preventDefault()
            void openTheOnly(event.currentTarget.value)
          }}
          onChange={(event) => {
            setWords(event.target.value)
            setParams({ find: event.target.value }, { replace: true })
          }}
          className="min-h-11 w-32 border-b border-scribe bg-transparent px-1 placeholder:text-ash max-bench:w-20"
        />
        <span className="flex gap-5 max-bench:hidden">{more}</span>
        <button type="button" className={button} onClick={begin}>
          New job
        </button>
      </Head>
      {problem !== '' && (
        <p role="alert" className="mx-5 mt-3 border-l-[3px] border-chalk pl-3">
          {problem}
        </p>
      )}
      <main {...WORK_SURFACE} aria-label="Rack" className="px-5 pb-6 max-bench:px-4">
        <h1 className="sr-only">Rack</h1>
        <UnitsAsked />
        {rack.status === 'success' && rack.data.total === 0 && (
          <p className="py-10 text-[19px]">
            {words !== ''
              ? 'No job has these words.'
              : away
                ? 'Nothing is put away.'
                : 'The rack is empty: begin with the casting on the bench.'}
          </p>
        )}
        {!away && <Begun />}
        {damaged.map((job) => (
          <section
            key={job.id}
            aria-label="Damaged job"
            className="border-b border-rule py-2"
            data-testid="damaged"
          >
            <b>A job that cannot be read.</b> {job.why}. The others are as they were; put back a copy of the
            data file if you have one. <span className="formula">{job.id}</span>
          </section>
        ))}
        {rack.data !== undefined && <RackLines away={away} find={find} rack={rack.data} />}
        <div className="flex flex-wrap gap-3 pt-4 bench:hidden">{more}</div>
      </main>
    </div>
  )
}

/** Jobs that were begun here while the server was not reached. */
function Begun(): ReactNode {
  const { waiting, reached } = useSyncExternalStore(outbox.subscribe, outbox.now)
  const jobs = reached ? [] : begun(waiting)
  return jobs.map((id) => (
    <Link
      key={id}
      to={`/jobs/${id}/part`}
      className="flex min-h-[72px] items-center justify-between gap-4 border-b border-rule"
      data-testid="begun"
    >
      <b className="words text-[26px]">{typedAndWaiting(waiting, id, 'part.name') ?? 'Not named yet'}</b>
      <span className="text-ash">begun here, waits for the server</span>
    </Link>
  ))
}

/** A text once nobody has typed for a moment: one question to the server, not one a key. */
function useSettled(text: string, afterMs: number): string {
  const [settled, setSettled] = useState(text)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), afterMs)
    return () => clearTimeout(timer)
  }, [text, afterMs])
  return settled
}
