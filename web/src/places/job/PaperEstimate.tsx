import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { PaperHead } from './PaperHead'

/** The estimate as it was given: one page, with the day until which it stands. */
export function PaperEstimate(): ReactNode {
  const { view, typed } = useJob()
  const offered = view.plan.offered
  if (offered == null) return null
  const { estimate, amounts, total } = offered
  const owner = typed('part.owner')
  return (
    <article className="paper-estimate only-print" aria-label="Estimate">
      <PaperHead what="Estimate" />
      <p className="py-2">
        {owner === '' ? '' : `For ${owner}. `}
        {estimate.label}. {offered.words}
      </p>
      <table className="w-full text-left">
        <tbody>
          {estimate.lines.map((line, at) => (
            <tr key={line.what} className="border-b border-rule">
              <th scope="row" className="py-1 font-normal">
                {line.what}
              </th>
              <td className="text-ash">{line.working}</td>
              <td className="figure text-right">{amounts[at]}</td>
            </tr>
          ))}
          <tr>
            <th scope="row" className="py-2">
              In all
            </th>
            <td />
            <td className="figure text-right text-[22px]">{total}</td>
          </tr>
        </tbody>
      </table>
      {estimate.without.length > 0 && <p>Not in this price: {estimate.without.join('; ')}.</p>}
      <p className="pt-2">
        {estimate.odds}.{' '}
        {estimate.ready !== '' && `Ready ${estimate.ready} if it is begun when this is given.`}
      </p>
      <p className="pt-2 text-ash">
        An estimate, not a promise: what is found once it is open may change it, and is said before it is
        done.
      </p>
      <p className="mt-10 border-b border-chalk pb-5 text-[12px]">Agreed, name and date</p>
    </article>
  )
}
