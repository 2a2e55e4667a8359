import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { PaperHead } from './PaperHead'

/** The card on paper, to lie beside the part: what is planned now, in one page. */
export function PaperCard(): ReactNode {
  const { view } = useJob()
  const { plan } = view
  const figure = (id: string) => plan.figures.find((candidate) => candidate.id === id)
  const leading = plan.iron.shares[0]
  const contender = plan.methods.contenders.find((c) => c.way.method === plan.methods.chosen?.method)
  const heated = plan.heat != null && !plan.heat.cold
  const ready = contender?.ready?.begun === false ? `Begun now: ready ${contender.ready.words}.` : ''
  const rows: (readonly [name: string, text: string, under?: string])[] = [
    ['Iron', leading === undefined ? '' : `${leading.label}, ${said(figure('iron.sure'))}`],
    ['Method', contender?.label ?? plan.locks[0]?.short ?? ''],
    [
      'Preheat',
      plan.heat?.cold !== true
        ? said(figure('heat.target'))
        : plan.methods.chosen?.school === 'arc_only'
          ? `none, ${plan.heat.most_words}`
          : 'none',
      heated ? `Read it at the ${plan.heat?.read_at ?? ''}.` : '',
    ],
    ['Soak', heated ? said(figure('heat.soak')) : ''],
    ['Heat with', heated ? (plan.heat?.source_label ?? '') : '', heated ? (plan.heat?.sentence ?? '') : ''],
    plan.methods.sets_pins
      ? ['Pins', said(figure('prep.pins'))]
      : ['Rods', said(figure('prep.rods')), plan.prep?.filler ?? ''],
    ['Beads', said(figure('prep.beads'))],
    ['Packing', plan.cooling?.packing ?? '', plan.cooling?.sentence ?? ''],
    ['Covered for', said(figure('cooling.unwrap'))],
    ['Until it may be touched', said(figure('cooling.touch'))],
    ['Start to finish', said(figure('method.hours')), ready],
    ['Price', said(figure('method.price')), figure('method.price')?.note ?? ''],
    ['Odds', said(figure('method.odds')), figure('method.odds')?.note ?? ''],
  ]
  return (
    <article className="paper-card only-print" aria-label="Card">
      <PaperHead what="Card" />
      <div className="grid grid-cols-[1fr_1fr] gap-x-8">
        <dl>
          {rows
            .filter(([, text]) => text !== '')
            .map(([name, text, under = '']) => (
              <div key={name} className="grid grid-cols-[92px_1fr] gap-x-2 border-b border-rule py-[3px]">
                <dt>{name}</dt>
                <dd>
                  <b>{text}</b>
                  {under !== '' && <span className="block text-[12.5px] leading-[16px]">{under}</span>}
                </dd>
              </div>
            ))}
        </dl>
        <div>
          {plan.cracks.map((crack) => (
            <section key={crack.id} className="border-b border-rule py-[3px]">
              <b>
                {crack.letter}: {crack.words}
              </b>
              {crack.ends.map((end) => (
                <p key={end.side}>{endWords(crack, end, plan.figures)}</p>
              ))}
              {(plan.prep?.seams ?? [])
                .filter((seam) => seam.letter === crack.letter)
                .map((seam) => (
                  <p key={seam.letter}>{seam.depth_words}</p>
                ))}
            </section>
          ))}
          <p className="pt-1">
            <b>In this order, more on the bench strip:</b>{' '}
            {(plan.prep?.work ?? [])
              .map((line) => [line.word.toLowerCase(), ...line.settings].join(' '))
              .filter((words, at, all) => words !== all[at - 1])
              .join('; ')}
          </p>
        </div>
      </div>
      {plan.cautions.length > 0 && (
        <section className="pt-2">
          <h2 className="text-[15px]">Cautions</h2>
          <p className="text-[12.5px] leading-[16px]">{plan.cautions.map((c) => c.sentence).join(' ')}</p>
        </section>
      )}
    </article>
  )
}

/** A figure's text; empty while it is not known. */
const said = (figure: Schemas['FigureSeen'] | undefined): string =>
  figure === undefined ? '' : `${figure.shown.number} ${figure.shown.unit}`.trim()

/** "left: drill 6.4 mm, 1.9 mm past the tip". */
function endWords(
  crack: Schemas['CrackPlan'],
  end: Schemas['CrackPlan']['ends'][number],
  figures: readonly Schemas['FigureSeen'][],
): string {
  const figure = (what: string) =>
    said(figures.find((candidate) => candidate.id === `cracks.${crack.id}.${end.side}.${what}`))
  const drill = figure('drill')
  return drill === ''
    ? `${end.side}: ${end.sentence}`
    : `${end.side}: drill ${drill}${figure('pilot') === '' ? '' : ` after ${figure('pilot')}`}, centre ${figure('offset')} past the tip`
}
