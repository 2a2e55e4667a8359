import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { shopQuery } from '../../api/queries'
import { useShop } from '../../job/ShopContext'
import { useShopWord } from '../../job/useShopWord'
import { Button } from '../../ui/Button'

/** Where people measure in inches and read degrees Fahrenheit. */
const IN_INCHES = /^en-(US|LR)\b/

/** At the first start a browser that speaks as in the States is asked once what is measured in here. */
export function UnitsAsked(): ReactNode {
  const shop = useQuery(shopQuery())
  const { units } = useShop()
  const { mutate, isError } = useShopWord()
  const [said, setSaid] = useState(false)
  if (said || !IN_INCHES.test(navigator.language) || shop.data?.fields['shop.units'] !== undefined)
    return null
  if (shop.data === undefined) return null
  const say = (typed: string) =>
    mutate(
      { change: { kind: 'set', key: 'shop.units', typed, shown_in: units } },
      { onSuccess: () => setSaid(true) },
    )
  return (
    <section
      aria-label="Units"
      className="mt-4 flex flex-wrap items-center gap-3 border-l-[3px] border-chalk py-1 pl-3"
    >
      <b className="text-[19px]">What do you measure in?</b>
      <Button onPress={() => say('imperial')}>Inches, pounds, °F</Button>
      <Button onPress={() => say('metric')}>mm, kg, °C</Button>
      {isError && <span role="alert">The server is not reached: nothing was changed.</span>}
    </section>
  )
}
