import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { Suspense, useEffect, useRef, useSyncExternalStore, type ReactNode } from 'react'
import { Route, Routes } from 'react-router'
import { Refused } from './api/client'
import { queryClient, shopQuery, tablesQuery } from './api/queries'
import { watched } from './api/watched'
import { ShopContext } from './job/ShopContext'
import { TablesContext } from './job/TablesContext'
import { Shortcuts } from './keys/Shortcuts'
import { DoorPage, HELPERS, ROUTES } from './places'
import { Boundary } from './ui/Boundary'
import { focusWork, WORK } from './ui/focus'
import { later } from './ui/later'

// What they show is not there when the first page is drawn.
const Notices = later(async () => (await import('./job/Notices')).Notices)
const Tray = later(async () => (await import('./job/Tray')).Tray)

/** The places of the application, once the shop is known. */
export function App(): ReactNode {
  // Drawn anew when a stream is up or down: only then it is decided again who asks.
  useSyncExternalStore(watched.subscribe, watched.now)
  const shop = useQuery(shopQuery())
  const units = shop.data?.shop.units
  const tables = useQuery({
    ...tablesQuery(units ?? 'metric'),
    enabled: units !== undefined,
    placeholderData: keepPreviousData,
  })
  const toldIn = useRef(units)
  useEffect(() => {
    // What was told in the other units is asked for anew, whoever changed them.
    if (toldIn.current !== undefined && units !== toldIn.current)
      void queryClient.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'shop' })
    toldIn.current = units
  }, [units])
  const theme = shop.data?.shop.theme
  useEffect(() => {
    if (theme !== undefined) document.documentElement.dataset['theme'] = theme
  }, [theme])
  if (shop.status === 'pending') return null
  if (shop.error instanceof Refused && shop.error.status === 401) {
    return (
      <Suspense>
        <DoorPage />
      </Suspense>
    )
  }
  if (shop.status === 'error' || tables.status === 'error') {
    return (
      <main className="p-5">
        <h1 className="text-[35px]">Vanadin does not answer</h1>
        <p>Start the server again; this page goes on by itself.</p>
      </main>
    )
  }
  if (tables.data === undefined) return null
  // What was kept by a version before says nothing of it.
  const helps = shop.data.helps ?? null
  return (
    <ShopContext
      value={{ ...shop.data.shop, revision: shop.data.revision, stand_ins: shop.data.stand_ins, helps }}
    >
      <TablesContext value={tables.data}>
        <a
          href={`#${WORK}`}
          className="no-print fixed top-0 left-0 z-30 min-h-11 -translate-y-full bg-raise px-4 py-3 focus:translate-y-0"
          onClick={(event) => {
            event.preventDefault()
            focusWork()
          }}
        >
          To the work
        </a>
        {/* It listens before anything is seen: no key is lost. */}
        <Shortcuts />
        <Suspense>
          <Notices />
        </Suspense>
        <Boundary what="This page">
          <Suspense>
            <Routes>
              {(helps === null ? ROUTES : HELPERS).map(({ path, Page }) => (
                <Route key={path} path={path} element={<Page />} />
              ))}
            </Routes>
          </Suspense>
        </Boundary>
        <Suspense>
          <Tray />
        </Suspense>
      </TablesContext>
    </ShopContext>
  )
}
