import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { wouldQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { fieldId } from '../../ui/focus'
import { useBench } from '../../ui/useBench'
import { useTables } from '../../job/TablesContext'
import { useWay } from '../../job/opened'
import { HoursStrip } from './HoursStrip'
import { TaughtList } from './TaughtList'

export interface OpenedProps {
  way: Schemas['Contender']
  chosen: boolean
  /** The job is referred out: it is worked out, but nobody takes it here. */
  refused: boolean
  /** Somebody asked for it: on a phone it lies folded in else. */
  asked: boolean
  onTake: () => void
}

/** One way, opened: for, against, what it leaves, its hours, its school, and what would bring it forward. */
export function Opened({ way, chosen, refused, asked, onTake }: OpenedProps): ReactNode {
  const bench = useBench()
  return (
    <section aria-label={way.label} className="flex flex-col gap-1 border-l-[3px] border-scribe py-2 pl-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h3 className="text-[22px] leading-7">{way.label}</h3>
        {!way.excluded && !refused && (
          <Button onPress={onTake} chosen={chosen} label={`${chosen ? 'Taken' : 'Take it'}: ${way.label}`}>
            {chosen ? 'Taken' : 'Take it'}
          </Button>
        )}
      </div>
      {bench || asked ? (
        <Inside way={way} chosen={chosen} />
      ) : (
        <details>
          <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
            For it, against it, its hours
          </summary>
          <Inside way={way} chosen={chosen} />
        </details>
      )}
    </section>
  )
}

function Inside({ way, chosen }: Pick<OpenedProps, 'way' | 'chosen'>): ReactNode {
  const { way: opened, lost } = useWay(way.way.method)
  if (opened === undefined)
    return (
      <>
        <Line name="Out" lines={way.reasons} />
        <p className="text-ash" role="status">
          {lost ? 'The server is not reached: it was not opened here before.' : 'Asked.'}
        </p>
      </>
    )
  return (
    <>
      <Line name="Out" lines={way.reasons} />
      <Line name="For it" lines={opened.favours} />
      <Line name="Against" lines={opened.cautions} />
      <Line name="Better" lines={opened.raised_by} joined="; " />
      <First way={way} />
      <Line name="Joint" lines={[opened.joint_words]} />
      <Line
        name="Odds"
        lines={opened.odds_parts.map((part) => `${part.words} (${part.moves})`)}
        joined="; "
      />
      <div className="grid grid-cols-[80px_1fr] gap-x-3">
        <span className="label pt-0.5">Hours</span>
        <HoursStrip steps={opened.steps} />
      </div>
      <Settings settings={opened.settings} />
      <OnThisJob way={way} />
      {!way.excluded && <Points parts={opened.parts} />}
      {chosen && opened.schools_to_choose.length > 1 && <School schools={opened.schools_to_choose} />}
      {opened.schools.map((school) => (
        <p key={school} className="small text-ash">
          {school}
        </p>
      ))}
    </>
  )
}

function Line({
  name,
  lines,
  joined = ' ',
}: {
  name: string
  lines: readonly string[]
  joined?: string
}): ReactNode {
  if (lines.length === 0) return null
  return (
    <p className="grid grid-cols-[80px_1fr] gap-x-3">
      <span className="label pt-0.5">{name}</span>
      <span>{lines.join(joined)}</span>
    </p>
  )
}

/** What would make it the first: tried on the server, on the whole plan. */
function First({ way }: { way: Schemas['Contender'] }): ReactNode {
  const { view } = useJob()
  const { revision } = useShop()
  const first = view.plan.methods.contenders.find((contender) => contender.recommended)
  const asked = useQuery({
    ...wouldQuery(view.id, view.revision, revision, way.way.method),
    enabled: first?.way.method !== way.way.method,
  })
  if (asked.data == null) return null
  const { change, then, of_100, only_not_here } = asked.data
  if (then == null)
    return (
      <Line
        name="First"
        lines={['No one change here, and no two together, would make it the first choice.']}
      />
    )
  const becomes = then === 'first' ? 'then it is the first choice' : 'then it is left, behind others'
  const holds = of_100 == null ? '' : `, ${of_100} of 100`
  if (only_not_here && then === 'first')
    return <Line name="First" lines={[`Once here: the first choice${holds}.`]} />
  return <Line name="First" lines={[`${change}: ${becomes}${holds}.`]} />
}

/** How the source is set for it. */
function Settings({ settings }: Pick<Schemas['WayOpened'], 'settings'>): ReactNode {
  if (settings.length === 0) return null
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
        Settings; the maker&apos;s sheet comes first
      </summary>
      <dl className="grid grid-cols-[80px_1fr] gap-x-3 gap-y-0.5 py-1">
        {settings.map((line) => (
          <div key={line.name} className="contents">
            <dt className="label">{line.name}</dt>
            <dd>{line.words}</dd>
          </div>
        ))}
      </dl>
    </details>
  )
}

/** Where practice differs in this way of doing it, and what is done on this job. */
function OnThisJob({ way }: { way: Schemas['Contender'] }): ReactNode {
  const { typed, field, say } = useJob()
  const { units, taught } = useShop()
  const matters = useTables().taught.filter((matter) => matter.methods.includes(way.way.method))
  if (matters.length === 0) return null
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
        Shops do this differently: {matters.map((matter) => matter.label.toLowerCase()).join(', ')}
      </summary>
      <TaughtList
        matters={matters}
        typed={(key) => (key.startsWith('shop_') ? (taught[key] ?? '') : typed(key as Schemas['JobField']))}
        onSay={(key, chosen) =>
          say(
            { kind: 'set', key, typed: chosen, shown_in: units },
            field(key as Schemas['JobField']).revision,
          )
        }
      />
    </details>
  )
}

/** The score, part by part: asked for, not shown. */
function Points({ parts }: Pick<Schemas['WayOpened'], 'parts'>): ReactNode {
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
        How it was weighed
      </summary>
      <ul className="formula">
        {parts.map((part) => (
          <li key={part.name}>
            {part.words} {part.name}: {part.working}
          </li>
        ))}
      </ul>
    </details>
  )
}

/** The schools of the method that was chosen: a school belongs to its method. */
function School({ schools }: { schools: Schemas['WayOpened']['schools_to_choose'] }): ReactNode {
  const { field, typed, say } = useJob()
  const { units } = useShop()
  return (
    <div className="mt-1">
      <p className="label mb-1">Another school than the usual</p>
      <Choice
        id={fieldId('method.school')}
        label="School"
        choices={schools}
        chosen={typed('method.school')}
        onChoose={(school) =>
          say(
            { kind: 'set', key: 'method.school', typed: school, shown_in: units },
            field('method.school').revision,
          )
        }
      />
    </div>
  )
}
