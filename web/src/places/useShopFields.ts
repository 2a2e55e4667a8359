import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Refused, type Problem, type Schemas } from '../api/client'
import type { FieldView } from '../api/fields'
import { shopQuery } from '../api/queries'
import { sender } from '../api/queue/outbox'
import { useShop } from '../job/ShopContext'
import { useShopWord } from '../job/useShopWord'
import { useShortcut } from '../keys/useShortcut'

interface Tried {
  typed: string
  problem: Problem
  /** The setting as it stood then: put right since, nothing is told of it any more. Nothing where another changed it. */
  revision: number | null
}

export interface ShopFields {
  /** What was typed and not taken, by key. */
  refused: Readonly<Record<string, Tried>>
  change: (field: FieldView, typed: string) => void
  say: (change: Schemas['ShopWord']) => void
  undo: () => void
  redo: () => void
  canUndo: boolean
  canRedo: boolean
}

/** Says settings of the shop, keeps what was refused, takes back what was said from here. */
export function useShopFields(shop: Schemas['ShopView'] | undefined): ShopFields {
  const { units } = useShop()
  const queryClient = useQueryClient()
  const [refused, setRefused] = useState<Record<string, Tried>>({})
  const word = useShopWord()
  const change = (field: FieldView, typed: string) => {
    const said = { kind: 'set' as const, key: field.key, typed, shown_in: units }
    word.mutate(
      { change: said, base: field.revision },
      {
        onSuccess: () =>
          setRefused((all) => Object.fromEntries(Object.entries(all).filter(([key]) => key !== field.key))),
        onError: (error) => {
          const problem =
            error instanceof Refused && error.problems[0] !== undefined
              ? error.problems[0]
              : {
                  field: field.key,
                  message: 'The server is not reached. Press Enter again.',
                  would_be_right: '',
                }
          const elsewhere = error instanceof Refused && error.status === 409
          const revision = elsewhere ? null : field.revision
          setRefused((all) => ({ ...all, [field.key]: { typed, problem, revision } }))
          void queryClient.invalidateQueries({ queryKey: shopQuery().queryKey })
        },
      },
    )
  }
  // Everybody takes back their own word.
  const own = shop?.own_words.find((words) => words.sender === sender)
  const undo = () => {
    if (own?.undo != null) word.mutate({ change: { kind: 'undo', target: own.undo } })
  }
  const redo = () => {
    if (own?.redo != null) word.mutate({ change: { kind: 'redo', target: own.redo } })
  }
  useShortcut('z', undo)
  useShortcut('y', redo)
  const stands = ([key, tried]: [string, Tried]): boolean =>
    tried.revision === null || (shop?.fields[key]?.revision ?? 0) === tried.revision
  return {
    refused: Object.fromEntries(Object.entries(refused).filter(stands)),
    change,
    say: (said) => word.mutate({ change: said }),
    undo,
    redo,
    canUndo: own?.undo != null,
    canRedo: own?.redo != null,
  }
}
