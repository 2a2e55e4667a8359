import { useQuery, useQueryClient } from '@tanstack/react-query'
import { createContext, use, useEffect, useMemo, useState, useSyncExternalStore, type ReactNode } from 'react'
import type { Change, Iron, JobView, Live, Schemas } from '../api/client'
import { outbox, type Refusal, type Waiting } from '../api/queue/outbox'
import { asIfQuery, blankQuery, jobQuery, shopQuery } from '../api/queries'
import { watched } from '../api/watched'
import { begun, typedAndWaiting } from '../api/queue/queue'
import { fieldAt, type FieldName, type FieldView, type Tables } from '../api/fields'
import { lastRead, type Heard } from './last-read'
import { useShop } from './ShopContext'
import { useTables } from './TablesContext'

interface JobBench {
  /** The job; its plan as if the iron were [`asIf`], where one is chosen. */
  view: JobView
  /** A field with what stands in it. */
  field: (name: FieldName) => FieldView
  /** What was typed into a field; empty for nothing. */
  typed: (name: FieldName) => string
  asIf: Iron | null
  seeAsIf: (iron: Iron | null) => void
  waiting: readonly Waiting[]
  /** Gives the id of what was said: of a crack, a neighbour, a picture it is theirs. */
  say: (change: Change, base?: number | null) => string
}

interface LiveBench {
  /** What the pad shows now, or the last reading. */
  live: Live | null
  /** The server is reached. */
  reached: boolean
}

const JobContext = createContext<JobBench | null>(null)
// What changes each second, and what hardly ever does, draw nothing anew but themselves.
const LiveContext = createContext<LiveBench>({ live: null, reached: true })
const RefusalsContext = createContext<readonly Refusal[]>([])

/** What the pad shows, and whether the server is reached. */
export const useLive = (): LiveBench => use(LiveContext)

/** What the server would not take of this job. */
export const useRefusals = (): readonly Refusal[] => use(RefusalsContext)

/** The job on the bench and how to say something of it. */
export function useJob(): JobBench {
  const bench = use(JobContext)
  if (bench === null) throw new Error('outside a job')
  return bench
}

export interface JobProviderProps {
  id: string
  children: ReactNode
  otherwise: (message: string) => ReactNode
}

/** Loads a job, keeps it current while others change it, and carries what is said to the server. */
export function JobProvider({ id, children, otherwise }: JobProviderProps): ReactNode {
  const box = useSyncExternalStore(outbox.subscribe, outbox.now)
  const isNew = begun(box.waiting).includes(id)
  const { data, ...job } = useQuery({ ...jobQuery(id), enabled: !isNew })
  const { heard, streaming } = useStream(id, !isNew)
  const shop = useShop()
  const blank = useQuery({ ...blankQuery(shop.revision), enabled: isNew })
  const tables = useTables()
  const [asIf, seeAsIf] = useState<Iron | null>(null)
  const other = useQuery({
    ...asIfQuery(id, data?.revision ?? 0, shop.revision, asIf ?? ''),
    enabled: asIf !== null && data !== undefined,
    // While a change is being worked in, the plan for that iron stays on the page.
    placeholderData: (before, query) => (query?.queryKey[4] === asIf ? before : undefined),
  })
  const seen = useMemo(
    () => data ?? (isNew ? newJob(id, blank.data, box.waiting) : undefined),
    [data, isNew, id, blank.data, box.waiting],
  )
  const waiting = useMemo(() => box.waiting.filter((item) => item.job === id), [box.waiting, id])
  const refusals = useMemo(() => box.refusals.filter((item) => item.job === id), [box.refusals, id])
  const reached = box.reached && (streaming || isNew)
  const shown = lastRead(heard, seen && { revision: seen.revision, live: seen.standing.live })
  const now = useMemo(() => ({ live: shown, reached }), [shown, reached])
  const bench = useMemo<JobBench | null>(() => {
    if (seen === undefined) return null
    const { fields } = seen
    return {
      field: (name) => fieldNamed(tables, fields, name),
      typed: (name) => fields[name]?.typed ?? '',
      view: asIf !== null && other.data !== undefined ? { ...seen, plan: other.data } : seen,
      asIf,
      seeAsIf,
      waiting,
      say: (change, base = null) => outbox.say(id, change, base),
    }
  }, [seen, tables, asIf, other.data, waiting, id])
  if (bench === null) {
    if (isNew && blank.status === 'error') {
      return otherwise('It is kept, and shown as soon as the server answers.')
    }
    return job.status === 'error' ? otherwise(job.error?.message ?? '') : null
  }
  return (
    <JobContext value={bench}>
      <RefusalsContext value={refusals}>
        <LiveContext value={now}>{children}</LiveContext>
      </RefusalsContext>
    </JobContext>
  )
}

/** A job that waits for the server: nothing is worked out of it yet, but it has the name it was given. */
function newJob(id: string, blank: JobView | undefined, waiting: readonly Waiting[]): JobView | undefined {
  if (blank === undefined) return undefined
  return { ...blank, id, name: typedAndWaiting(waiting, id, 'part.name') ?? blank.name }
}

function fieldNamed(tables: Tables, held: JobView['fields'], name: FieldName): FieldView {
  const field = fieldAt(tables, held, name)
  if (field === undefined) throw new Error(`there is no field ${name}`)
  return field
}

/** While the stream is down the job is asked for so often. */
const ASKED_EVERY_MS = 10_000
/** Readings that came and then did not for so long. */
const UNHEARD_MS = 30_000
/** While readings come, what is made of them is looked at so often. */
const RECORD_MS = 60_000
/** A job clock that runs faster is looked at more often, up to so much. */
const FASTEST = 6

function useStream(id: string, there: boolean): { heard: Heard | null; streaming: boolean } {
  const queryClient = useQueryClient()
  const [heard, setHeard] = useState<Heard | null>(null)
  const [streaming, setStreaming] = useState(true)
  useEffect(() => {
    if (!there) return
    const refetch = () => void queryClient.invalidateQueries({ queryKey: jobQuery(id).queryKey })
    let source: EventSource | null = null
    let down: (() => void) | null = null
    let asking: ReturnType<typeof setInterval> | undefined
    let unheard: ReturnType<typeof setTimeout> | undefined
    const fell = () => {
      down?.()
      down = null
    }
    const open = () => {
      source = new EventSource(`/api/jobs/${id}/stream`)
      source.addEventListener('hello', (event: MessageEvent<string>) => {
        setStreaming(true)
        clearInterval(asking)
        asking = undefined
        down ??= watched.up()
        // What was said between the first look and this is looked at; else there is nothing new.
        const { revision, shop, readings } = JSON.parse(event.data) as Schemas['Hello']
        const seen = queryClient.getQueryData(jobQuery(id).queryKey)
        const known = queryClient.getQueryData(shopQuery().queryKey)?.revision
        if (seen?.revision !== revision || seen.readings !== readings) refetch()
        if (known !== shop) void queryClient.invalidateQueries({ queryKey: shopQuery().queryKey })
      })
      source.addEventListener('changed', (event: MessageEvent<string>) => {
        const seen = queryClient.getQueryData(jobQuery(id).queryKey)?.revision
        const { revision, fact } = JSON.parse(event.data) as Schemas['Said']
        // What this page said itself comes with the answer.
        if (seen !== revision && !outbox.saidHere(fact)) refetch()
      })
      // Every figure hangs on the shop: who changes it changes this page.
      source.addEventListener('shop', () => {
        void queryClient.invalidateQueries({ queryKey: shopQuery().queryKey })
        refetch()
      })
      source.addEventListener('reading', (event: MessageEvent<string>) => {
        const known = queryClient.getQueryData(jobQuery(id).queryKey)
        setHeard({ live: JSON.parse(event.data) as Live, revision: known?.revision ?? 0 })
        // A connection may be dead and nobody says so: readings that stop are asked after once, over another one.
        clearTimeout(unheard)
        unheard = setTimeout(again, UNHEARD_MS)
        // The record grows without the log growing, and what is made of it: looked at now and then.
        const at = queryClient.getQueryState(jobQuery(id).queryKey)?.dataUpdatedAt ?? 0
        const speed = known?.job.rounds.at(-1)?.lit?.speed ?? 1
        if (Date.now() - at >= RECORD_MS / Math.min(speed, FASTEST)) refetch()
      })
      source.addEventListener('error', () => {
        setStreaming(false)
        fell()
        // Nobody tells of anything: it is asked for until somebody does.
        asking ??= setInterval(refetch, ASKED_EVERY_MS)
      })
    }
    const close = () => {
      clearTimeout(unheard)
      source?.close()
      source = null
      fell()
      clearInterval(asking)
      asking = undefined
    }
    const again = () => {
      close()
      open()
      refetch()
    }
    // A browser keeps only a few connections to one server: a page nobody sees lets go of its own.
    const handleVisibility = () => {
      if (document.visibilityState === 'hidden') close()
      else if (source === null) open()
    }
    open()
    document.addEventListener('visibilitychange', handleVisibility)
    window.addEventListener('pagehide', close)
    window.addEventListener('pageshow', handleVisibility)
    return () => {
      document.removeEventListener('visibilitychange', handleVisibility)
      window.removeEventListener('pagehide', close)
      window.removeEventListener('pageshow', handleVisibility)
      close()
    }
  }, [id, there, queryClient])
  return { heard, streaming }
}
