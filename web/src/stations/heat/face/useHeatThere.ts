import { useState } from 'react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../../api/client'
import { faceHeatQuery, faceWarmthQuery } from '../../../api/queries'

export interface HeatThere {
  heat: Schemas['FaceHeat'] | null
  /** Why there is none. */
  why: string
  isPending: boolean
  /** It is that of another place, or of before something was said. */
  isOld: boolean
  /** What that asks of the cracks is known. */
  isJudged: boolean
  /** It could not be asked for. */
  isLost: boolean
  /** The heat of which that was known last, here or elsewhere. */
  judged: Schemas['FaceHeat'] | null
  /** It was known here or elsewhere, and what takes longer may be asked. */
  wasJudged: boolean
}

/**
 * What the face is at under a flame: where the flame was put anew its picture first, what that asks of the cracks as soon
 * as it is known.
 */
export function useHeatThere(
  stand: readonly [id: string, revision: number, shop: number, units: string],
  flame: Schemas['FlamePlacement'],
  enabled: boolean,
): HeatThere {
  const [judgedAt, setJudgedAt] = useState<Schemas['FlamePlacement'] | null>(null)
  const isMoved = flame !== judgedAt
  const first = useQuery({ ...faceWarmthQuery(...stand, flame), enabled: enabled && isMoved })
  const judged = useQuery({
    ...faceHeatQuery(...stand, flame),
    // The picture has the processors for itself.
    enabled: enabled && !(isMoved && first.isPending),
    placeholderData: keepPreviousData,
  })
  const isThere = judged.data !== undefined && !judged.isPlaceholderData
  if (isThere && isMoved) setJudgedAt(flame)
  const pictured = isThere ? undefined : first.data
  const seen = pictured ?? judged.data
  return {
    heat: seen?.heat ?? null,
    why: seen?.why_not ?? '',
    isPending: seen === undefined && judged.isPending,
    isOld: !isThere && pictured === undefined,
    isJudged: pictured === undefined,
    isLost: judged.isError,
    judged: judged.data?.heat ?? null,
    wasJudged: judged.data !== undefined,
  }
}
