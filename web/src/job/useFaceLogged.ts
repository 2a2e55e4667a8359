import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { faceLoggedQuery } from '../api/queries'
import { useJob, useLive } from './JobContext'
import { useShop } from './ShopContext'

/** Ours: a face that is being heated is worked out anew so often, in min of the job clock. */
const ANEW_MIN = 2

export interface FaceLogged {
  heat: Schemas['FaceHeat'] | null
  /** It is being worked out, and there is none of before. */
  isPending: boolean
  /** It could not be asked for; what was known before stands. */
  isLost: boolean
  /** More was said or read since. */
  isOld: boolean
}

/**
 * The drawn face as it was heated since it was lit, by what was said and read. What was asked is answered before it is
 * asked anew: a log that grows faster than it is worked out is seen all the same.
 */
export function useFaceLogged(enabled = true): FaceLogged {
  const { view } = useJob()
  const { live } = useLive()
  const shop = useShop()
  const minutes = Math.floor((live?.minutes ?? 0) / ANEW_MIN)
  const grown = [view.id, view.revision, shop.revision, shop.units, minutes] as const
  const [asked, setAsked] = useState(grown)
  const answer = useQuery({ ...faceLoggedQuery(...asked), enabled })
  const isBehind = grown.some((it, place) => it !== asked[place])
  if (isBehind && !answer.isFetching) setAsked(grown)
  // A tip that is likely to run on does not stop being so because the server is not reached.
  const [known, setKnown] = useState(answer.data)
  if (answer.data !== undefined && answer.data !== known) setKnown(answer.data)
  const seen = answer.data ?? known
  return {
    heat: seen?.heat ?? null,
    isPending: answer.isPending && seen === undefined,
    isLost: answer.isError,
    isOld: answer.isPlaceholderData || isBehind || answer.isError,
  }
}
