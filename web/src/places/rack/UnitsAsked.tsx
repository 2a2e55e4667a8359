import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import type { UnitSystem } from '../../api/client'
import { shopQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useShopWord } from '../../job/useShopWord'
import { useUnits } from '../../job/useUnits'
import { Button } from '../../ui/Button'

/** Where people measure in inches and read degrees Fahrenheit. */
const IN_INCHES = /^en-(US|LR)\b/

/**
 * A browser that speaks as in the States is asked once what is measured in on it. At the first start of a shop the answer
 * is what the other devices begin with too.
 */
export function UnitsAsked(): ReactNode {
  const shop = useQuery(shopQuery())
  const { units, helps } = useShop()
  const word = useShopWord()
  const own = useUnits()
  const [said, setSaid] = useState(false)
  if (said || shop.data === undefined || !IN_INCHES.test(navigator.language)) return null
  if (shop.data.chose_units || units === 'imperial') return null
  const first = helps === null && shop.data.fields['shop.units'] === undefined
  const say = (typed: UnitSystem) => {
    if (first) word.mutate({ change: { kind: 'set', key: 'shop.units', typed, shown_in: units } })
    own.mutate(typed, { onSuccess: () => setSaid(true) })
  }
  return (
    <section
      aria-label="Units"
      className="mt-4 flex flex-wrap items-center gap-3 border-l-[3px] border-chalk py-1 pl-3"
    >
      <b className="text-[19px]">What do you measure in?</b>
      <Button onPress={() => say('imperial')}>Inches, pounds, °F</Button>
      <Button onPress={() => say('metric')}>mm, kg, °C</Button>
      {(own.isError || word.isError) && (
        <span role="alert">The server is not reached: nothing was changed.</span>
      )}
    </section>
  )
}
