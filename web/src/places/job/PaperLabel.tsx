import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { labelCodeQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { month } from '../../quantity/show'
import { useHot } from '../../ui/hot'

/** The label on the part itself, 62 by 29 mm: what whoever finds it has to know, and where its record is. */
export function PaperLabel(): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const hot = useHot()
  const { label } = view.plan.hand_over
  const { data: code } = useQuery({ ...labelCodeQuery(view.id), enabled: label != null })
  if (label == null) return null
  return (
    <article className="paper-label only-print" aria-label="Label">
      <div className="flex h-full gap-[1.5mm] overflow-hidden">
        <div className="flex min-w-0 grow flex-col">
          <b className="line-clamp-2 text-[12px] leading-[12.5px]">{view.name}</b>
          <span className="text-[9.5px] leading-[11px]">
            {view.practice == null
              ? `Repaired ${month(label.mended_ms, shop)}: ${label.by}`
              : 'Practice: no repair'}
          </span>
          {hot !== '' && <b className="text-[10px] leading-[11px]">{hot} when this was printed</b>}
          {label.answered_for !== '' && (
            <b className="line-clamp-3 text-[7.5px] leading-[8.5px]">{label.answered_for}</b>
          )}
          {label.limit !== '' && <b className="text-[12px] leading-[14px]">{label.limit}</b>}
          <span className="mt-auto text-[8px] leading-[9.5px]">
            {view.practice == null ? 'Repaired: see record' : 'A made-up part'}
          </span>
        </div>
        {code !== undefined && code.qr !== '' && (
          <img
            src={`data:image/svg+xml,${encodeURIComponent(code.qr)}`}
            alt={`A code for the camera: ${code.says}`}
            className="size-[25mm] shrink-0 self-center"
            data-testid="label-code"
          />
        )}
      </div>
    </article>
  )
}
