import { QueryClient, keepPreviousData, queryOptions } from '@tanstack/react-query'
import { laidOver } from './laid-over'
import { api, dataOf, Refused, type Iron, type JobView, type Schemas, type UnitSystem } from './client'
import { watched } from './watched'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof Refused) && count < 2,
      staleTime: 1_000,
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
})

/** What hangs on nothing but its key: asked once. */
const RECKONED = { staleTime: Infinity, meta: { reckoned: true } }

export const jobQuery = (id: string) =>
  queryOptions({
    queryKey: ['job', id],
    queryFn: async ({ client, queryKey }) => {
      const known = () => client.getQueryData<JobView>(queryKey)
      const asked = known()
      const answer = await api.GET('/api/jobs/{id}', { params: { path: { id } } })
      const { headers } = answer.response
      const earlier = headers.get(SEEN_AT) !== null || headers.get(ASKED_BEFORE) !== null
      return laidOver(dataOf('JobView', answer), { asked, since: known() }, earlier)
    },
  })

/** A job of which nothing is known, in the shop as it is: what a new one shows until the server has it. */
export const blankQuery = (shop: number) =>
  queryOptions({
    queryKey: ['blank', shop],
    queryFn: async () => dataOf('JobView', await api.GET('/api/blank')),
    staleTime: Infinity,
    gcTime: Infinity,
  })

/** Lines of the rack that are asked for at a time. */
export const RACK_PAGE = 20

/** A page of the rack, from 0; the most urgent jobs are on the first. */
export const rackQuery = (away: boolean, find: string, page: number) =>
  queryOptions({
    queryKey: ['rack', away, find, page],
    queryFn: async () => {
      const query = { away, find, from: page * RACK_PAGE, most: RACK_PAGE }
      return dataOf('Rack', await api.GET('/api/rack', { params: { query } }))
    },
    refetchInterval: 5_000,
  })

export const shopQuery = () =>
  queryOptions({
    queryKey: ['shop'],
    queryFn: async () => dataOf('ShopView', await api.GET('/api/shop')),
    staleTime: 10_000,
    // Where no stream tells of it: somebody else may change the shop.
    refetchInterval: () => (watched.now() ? false : 10_000),
  })

/** The shelves as they stand, and what has to be bought. */
export const storesQuery = (shop: number) =>
  queryOptions({
    queryKey: ['stores', shop],
    queryFn: async () => dataOf('StoresView', await api.GET('/api/stores')),
    // What a job takes is told by no stream here.
    refetchInterval: 5_000,
  })

/** Every field and every test there is, in one system of units: it never changes while the server runs. */
export const tablesQuery = (units: UnitSystem) =>
  queryOptions({
    queryKey: ['tables', units],
    queryFn: async () =>
      dataOf('Tables', await api.GET('/api/tables/{units}', { params: { path: { units } } })),
    staleTime: Infinity,
    gcTime: Infinity,
  })

/** A question asked of the ledger, as the shop stands at this revision. */
export const askLedgerQuery = (words: string, shop: number, units: UnitSystem) =>
  queryOptions({
    queryKey: ['ledger', 'ask', words, shop, units],
    queryFn: async () =>
      dataOf('LedgerAnswer', await api.GET('/api/ledger/ask', { params: { query: { words } } })),
  })

/** What a line of the ledger stands on. */
export const ledgerCasesQuery = (
  opened: { of: string; line: string; words?: string },
  shop: number,
  units: UnitSystem,
) =>
  queryOptions({
    queryKey: ['ledger', 'cases', opened.of, opened.line, opened.words, shop, units],
    queryFn: async () => {
      const { of, line, words } = opened
      const query = words === undefined ? { of, line } : { of, line, words }
      return dataOf('LedgerCases', await api.GET('/api/ledger/cases', { params: { query } }))
    },
  })

/** What the shop's own repairs have taught, in the units of this device. */
export const ledgerQuery = (shop: number, units: UnitSystem) =>
  queryOptions({
    queryKey: ['ledger', shop, units],
    queryFn: async () => dataOf('Wall', await api.GET('/api/ledger')),
    // What becomes known of a job is told by no stream here.
    refetchInterval: 10_000,
  })

/** Every calculation of the reckoner, in one system of units: it never changes while the server runs. */
export const calculationsQuery = (units: UnitSystem) =>
  queryOptions({
    queryKey: ['reckoner', units],
    queryFn: async () =>
      dataOf('Calculations', await api.GET('/api/reckoner/{units}', { params: { path: { units } } })),
    staleTime: Infinity,
    gcTime: Infinity,
  })

/** One of them worked out: by what stands in its blanks, and by what the shop has learned. */
export const reckonedQuery = (
  id: string,
  blanks: Readonly<Record<string, string>>,
  units: UnitSystem,
  shop: number,
) =>
  queryOptions({
    queryKey: ['reckoned', id, blanks, units, shop],
    queryFn: async () =>
      dataOf(
        'Reckoned',
        await api.POST('/api/reckoner/{id}', { params: { path: { id } }, body: { blanks } }),
      ),
    ...RECKONED,
  })

/** Where the other devices of the shop find the server. */
export const addressQuery = () =>
  queryOptions({
    queryKey: ['address'],
    queryFn: async () => dataOf('AddressView', await api.GET('/api/address')),
  })

/** What a camera reads on the label of a part. */
export const labelCodeQuery = (id: string) =>
  queryOptions({
    queryKey: ['label-code', id],
    queryFn: async () =>
      dataOf('LabelCode', await api.GET('/api/jobs/{id}/label-code', { params: { path: { id } } })),
  })

/** Who may come in, and who did. */
export const doorQuery = () =>
  queryOptions({
    queryKey: ['door'],
    queryFn: async () => dataOf('DoorView', await api.GET('/api/door')),
  })

/** The drawn face under a flame, as job and shop stand at these revisions, told in these units. */
export const faceHeatQuery = (
  id: string,
  revision: number,
  shop: number,
  units: string,
  flame: Schemas['FlamePlacement'],
) =>
  queryOptions({
    queryKey: ['face-heat', id, revision, shop, units, flame],
    queryFn: async ({ signal }) =>
      dataOf(
        'FaceHeatSeen',
        await api.POST('/api/jobs/{id}/face-heat', { params: { path: { id } }, body: flame, signal }),
      ),
    ...RECKONED,
    retry: false,
  })

/** What its places are at there, before it is known what that asks of its cracks. */
export const faceWarmthQuery = (
  id: string,
  revision: number,
  shop: number,
  units: string,
  flame: Schemas['FlamePlacement'],
) =>
  queryOptions({
    queryKey: ['face-warmth', id, revision, shop, units, flame],
    queryFn: async ({ signal }) =>
      dataOf(
        'FaceHeatSeen',
        await api.POST('/api/jobs/{id}/face-warmth', { params: { path: { id } }, body: flame, signal }),
      ),
    ...RECKONED,
    retry: false,
  })

/** The drawn face as it was heated since it was lit; `since` tells a log that has grown from one that has not. */
export const faceLoggedQuery = (id: string, revision: number, shop: number, units: string, since: number) =>
  queryOptions({
    queryKey: ['face-logged', id, revision, shop, units, since],
    queryFn: async ({ signal }) =>
      dataOf(
        'FaceHeatSeen',
        await api.GET('/api/jobs/{id}/face-logged', { params: { path: { id } }, signal }),
      ),
    ...RECKONED,
    placeholderData: keepPreviousData,
    retry: false,
  })

/** The drawn face from when it was covered to hand-warm. */
export const faceCoolingQuery = (id: string, revision: number, shop: number, units: string) =>
  queryOptions({
    queryKey: ['face-cooling', id, revision, shop, units],
    queryFn: async ({ signal }) =>
      dataOf(
        'FaceHeatSeen',
        await api.GET('/api/jobs/{id}/face-cooling', { params: { path: { id } }, signal }),
      ),
    ...RECKONED,
    placeholderData: keepPreviousData,
    retry: false,
  })

/** What the seams of the drawn face pull. */
export const seamPullQuery = (id: string, revision: number, shop: number, units: string) =>
  queryOptions({
    queryKey: ['seam-pull', id, revision, shop, units],
    queryFn: async ({ signal }) =>
      dataOf(
        'SeamPullsSeen',
        await api.GET('/api/jobs/{id}/seam-pull', { params: { path: { id } }, signal }),
      ),
    ...RECKONED,
    retry: false,
  })

/** What the drawn face carries, by the load that was said. */
export const faceLoadQuery = (id: string, revision: number, shop: number, units: string) =>
  queryOptions({
    queryKey: ['face-load', id, revision, shop, units],
    queryFn: async ({ signal }) =>
      dataOf('FaceLoadSeen', await api.GET('/api/jobs/{id}/face-load', { params: { path: { id } }, signal })),
    ...RECKONED,
    retry: false,
  })

/** Where to begin with the flame. */
export const beginningsQuery = (id: string, revision: number, shop: number, units: string) =>
  queryOptions({
    queryKey: ['where-to-begin', id, revision, shop, units],
    queryFn: async ({ signal }) =>
      dataOf(
        'BeginningsSeen',
        await api.GET('/api/jobs/{id}/where-to-begin', { params: { path: { id } }, signal }),
      ),
    ...RECKONED,
    retry: false,
  })

/** Told in the units of the shop at this revision of it. */
export const historyQuery = (id: string, revision: number, shop: number) =>
  queryOptions({
    queryKey: ['history', id, revision, shop],
    queryFn: async () =>
      dataOf('History', await api.GET('/api/jobs/{id}/history', { params: { path: { id } } })),
  })

/** What each answer of a test would change, as job and shop stand at these revisions. */
export const answersQuery = (id: string, revision: number, shop: number, test: string) =>
  queryOptions({
    queryKey: ['answers', id, revision, shop, test],
    queryFn: async () =>
      dataOf('Answers', await api.GET('/api/jobs/{id}/answers/{test}', { params: { path: { id, test } } })),
    ...RECKONED,
  })

/** The plan as if the iron were known, as job and shop stand at these revisions. */
export const asIfQuery = (id: string, revision: number, shop: number, iron: string) =>
  queryOptions({
    queryKey: ['as-if', id, revision, shop, iron],
    queryFn: async () =>
      dataOf('Plan', await api.GET('/api/jobs/{id}/as-if/{iron}', { params: { path: { id, iron } } })),
    ...RECKONED,
  })

/** What would make a method the first choice, as job and shop stand at these revisions. */
export const wouldQuery = (id: string, revision: number, shop: number, method: string) =>
  queryOptions({
    queryKey: ['would', id, revision, shop, method],
    queryFn: async () =>
      dataOf('Would', await api.GET('/api/jobs/{id}/would/{method}', { params: { path: { id, method } } })),
    ...RECKONED,
    retry: false,
  })

/** What a plan hangs on beside its job: where one of these moves, its answers are others. */
export interface PlanStands {
  revision: number
  /** Readings move it without a word. */
  readings: number
  shop: number
  units: UnitSystem
  /** As if it were this iron. */
  iron: Iron | null
}

/** A way of a job as it is opened: how it is weighed and done. The same way as it was stays until the new is there. */
export const wayQuery = (id: string, method: string, stands: PlanStands) =>
  queryOptions({
    queryKey: ['way', wayOf(id, method, stands), stands],
    queryFn: async () => {
      const params = { path: { id, method }, query: asIf(stands) }
      return dataOf('WayOpened', await api.GET('/api/jobs/{id}/ways/{method}', { params }))
    },
    placeholderData: (before, query) =>
      query?.queryKey[1] === wayOf(id, method, stands) ? before : undefined,
    ...RECKONED,
  })

/** A figure of a job with its working. */
export const figureQuery = (id: string, figure: string, stands: PlanStands) =>
  queryOptions({
    queryKey: ['figure', id, figure, stands],
    queryFn: async () => {
      const params = { path: { id, figure }, query: asIf(stands) }
      return dataOf('Figure', await api.GET('/api/jobs/{id}/figures/{figure}', { params }))
    },
    ...RECKONED,
  })

const wayOf = (id: string, method: string, { iron }: PlanStands): string => `${id} ${method} ${iron ?? ''}`

const asIf = ({ iron }: PlanStands): { iron?: Iron } => (iron === null ? {} : { iron })

/** What will happen once a job is lit. */
export const rehearsalQuery = (id: string, stands: PlanStands) =>
  queryOptions({
    queryKey: ['rehearsal', id, stands],
    queryFn: async () => {
      const answer = await api.GET('/api/jobs/{id}/rehearsal', { params: { path: { id } } })
      if (answer.data === undefined) throw new Refused(answer.response.status, [])
      return answer.data
    },
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
    ...RECKONED,
  })

/** What moved the odds of a job last, as job and shop stand at these revisions. */
export const oddsMovedQuery = (id: string, revision: number, shop: number, units: UnitSystem) =>
  queryOptions({
    queryKey: ['odds-moved', id, revision, shop, units],
    queryFn: async () =>
      dataOf('OddsMovedSeen', await api.GET('/api/jobs/{id}/odds-moved', { params: { path: { id } } })),
    ...RECKONED,
    retry: false,
  })

/** When a job's sessions are booked, beside what every other job asks of the same hands. */
export const bookedQuery = (id: string, revision: number, shop: number) =>
  queryOptions({
    queryKey: ['booked', id, revision, shop],
    queryFn: async () =>
      dataOf('HandsBooked', await api.GET('/api/jobs/{id}/booked', { params: { path: { id } } })),
    retry: false,
  })

/** Lessons, cases, one's own curve, what was handed back. */
export const practiceQuery = () =>
  queryOptions({
    queryKey: ['practice'],
    queryFn: async () => dataOf('PracticePlace', await api.GET('/api/practice')),
  })

/** What became of a practice that is over. */
export const practiceEndQuery = (job: string, shop: number, units: UnitSystem) =>
  queryOptions({
    queryKey: ['practice-end', job, shop, units],
    queryFn: async () =>
      dataOf('Ended', await api.GET('/api/jobs/{id}/practice', { params: { path: { id: job } } })),
  })
