import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { figureQuery } from '../api/queries'
import { Why, WhyWorking } from '../ui/Why'
import { useJob } from './JobContext'
import { usePlanStands } from './opened'
import { useAlone } from './useAlone'

export interface FigProps {
  id: string
  size?: 'line' | 'card' | 'large'
  side?: 'left' | 'top' | 'bottom'
  otherwise?: string
}

const SIZES: Record<NonNullable<FigProps['size']>, string> = {
  line: 'text-[19px]',
  card: 'text-[28px] leading-8',
  large: 'text-[40px] leading-10',
}

/** A figure of the plan by its id: press it to ask why. */
export function Fig({ id, size = 'line', side, otherwise = 'not known yet' }: FigProps): ReactNode {
  const { view } = useJob()
  const alone = useAlone()
  const figure = view.plan.figures.find((candidate) => candidate.id === id)
  if (alone) return <span className="text-ash">yours to say</span>
  if (figure === undefined) return <span className="text-ash">{otherwise}</span>
  return (
    <Why figure={figure} inside={<AskedWhy id={id} />} {...(side === undefined ? {} : { side })}>
      <span className={`figure whitespace-nowrap ${SIZES[size]}`}>
        {figure.unit === 'money' ? (
          <>
            {figure.shown.unit}
            {figure.shown.number}
          </>
        ) : (
          <>
            {figure.shown.number}{' '}
            {figure.shown.unit !== '' && (
              <span className="font-sans small font-[450] text-ash [font-stretch:96%]">
                {figure.shown.unit}
              </span>
            )}
          </>
        )}
      </span>
    </Why>
  )
}

/** Its working, asked for once it is pressed. */
function AskedWhy({ id }: { id: string }): ReactNode {
  const { view } = useJob()
  const stands = usePlanStands()
  const asked = useQuery(figureQuery(view.id, id, stands))
  if (asked.data !== undefined) return <WhyWorking figure={asked.data} units={stands.units} />
  return (
    <p className="mt-3" role="status">
      {asked.isError ? 'The server is not reached: its working was not seen here before.' : 'Asked.'}
    </p>
  )
}
