import { useId, useState, type ReactNode } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { Refused, api, dataOf, type Problem, type Schemas } from '../api/client'
import { jobQuery } from '../api/queries'
import { minutes } from '../quantity/show'
import { Box } from '../ui/Box'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { HeatChart } from '../ui/HeatChart'
import { Plate } from '../ui/Plate'
import { Sheet } from '../ui/Sheet'
import { useJob } from './JobContext'
import { themeOf, useShop } from './ShopContext'

type Seen = Schemas['FileSeen']

const PADS = [
  { id: '1', label: 'Pad 1, the coldest far corner' },
  { id: '2', label: 'Pad 2' },
  { id: '3', label: 'Pad 3' },
  { id: '4', label: 'Pad 4' },
]

const UNITS = [
  { id: 'celsius', label: '°C' },
  { id: 'fahrenheit', label: '°F' },
]

/** A logger's file brought in afterwards: looked at as it would lie on the job clock, then kept. */
export function LoggerFile(): ReactNode {
  const { view } = useJob()
  const queries = useQueryClient()
  const [text, setText] = useState<string | null>(null)
  const [column, setColumn] = useState<number | null>(null)
  const [unit, setUnit] = useState('')
  const [first, setFirst] = useState('')
  const [pad, setPad] = useState('1')
  const [seen, setSeen] = useState<Seen | null>(null)
  const [problems, setProblems] = useState<readonly Problem[]>([])
  const [kept, setKept] = useState(0)
  const id = useId()
  const lit = view.job.rounds.some((round) => round.lit != null || round.cancelled.length > 0)

  const ask = async (done: Schemas['FileDone'], of: string, at: number | null, as: string, from: string) => {
    const first_min = from.trim() === '' ? null : Number(from.replace(',', '.'))
    if (first_min !== null && !Number.isFinite(first_min)) {
      setProblems([
        { field: 'first_min', message: 'this is no number of minutes', would_be_right: '0 or 12.5' },
      ])
      return null
    }
    try {
      const body = {
        text: of,
        done,
        column: at,
        unit: as === '' ? null : as,
        first_min,
        channel: Number(pad),
      }
      const path = { id: view.id }
      const answer = await api.POST('/api/jobs/{id}/readings/file', { params: { path }, body })
      const found = dataOf('FileSeen', answer)
      setProblems([])
      setSeen(found)
      return found
    } catch (error) {
      const said = error instanceof Refused ? error.problems : []
      const lost = {
        field: '',
        message: 'The server is not reached. The file is still here.',
        would_be_right: '',
      }
      setProblems(said.length > 0 ? said : [lost])
      return null
    }
  }
  const look = (at: number | null, as: string, from: string) => {
    if (text !== null) void ask('looked_at', text, at, as, from)
  }
  const change = async (done: 'kept' | 'taken_out') => {
    if (text === null) return
    const found = await ask(done, text, column, unit, first)
    if (found === null) return
    setKept(done === 'kept' ? found.changed : 0)
    await queries.invalidateQueries({ queryKey: jobQuery(view.id).queryKey })
  }
  const close = () => {
    setText(null)
    setSeen(null)
    setColumn(null)
    setUnit('')
    setFirst('')
    setPad('1')
    setKept(0)
    setProblems([])
  }
  if (!lit) return null
  const chosen = seen?.columns.find((it) => it.at === (column ?? seen.columns[0]?.at))
  const said = (field: string) => problems.find((problem) => problem.field === field)
  return (
    <>
      <PickFile
        onRead={(read) => {
          setText(read)
          void ask('looked_at', read, null, '', '')
        }}
      />
      <Sheet title="A logger's file" open={text !== null} onOpenChange={(open) => !open && close()}>
        <div className="flex flex-col gap-4">
          <Wrong problems={problems} />
          {seen !== null && chosen !== undefined && (
            <>
              <p className="text-[17px]" data-testid="file-seen">
                {seen.rows} rows over {minutes(seen.lasts_min)}.
                {seen.left_out > 0 && ` ${seen.left_out} of them lie before lighting up or after now.`}
              </p>
              {seen.columns.length > 1 && (
                <Choice
                  label="Which column"
                  choices={seen.columns.map((it) => ({ id: String(it.at), label: it.name }))}
                  chosen={String(chosen.at)}
                  onChoose={(next) => {
                    const at = next === '' ? chosen.at : Number(next)
                    setColumn(at)
                    look(at, unit, first)
                  }}
                />
              )}
              <Choice
                label="Read by"
                choices={PADS}
                chosen={pad}
                onChoose={(next) => setPad(next === '' ? '1' : next)}
              />
              <Choice
                label="In"
                choices={UNITS}
                chosen={unit !== '' ? unit : (chosen.unit ?? '')}
                onChoose={(next) => {
                  setUnit(next)
                  look(column, next, first)
                }}
              />
              {chosen.unit == null && unit === '' && <p className="text-ash">Its head says no unit.</p>}
              {/* The whole file goes to the server each time: it is asked once the figure is typed. */}
              <form
                className="max-w-[260px]"
                onSubmit={(event) => {
                  event.preventDefault()
                  look(column, unit, first)
                }}
                onBlur={() => look(column, unit, first)}
              >
                <label htmlFor={id} className="label">
                  Its first row, minutes after lighting up
                </label>
                <Box
                  id={id}
                  text={first}
                  keys={[]}
                  placeholder={String(seen.first_min ?? 0)}
                  aside="min"
                  wrong={said('first_min') !== undefined}
                  onType={setFirst}
                />
              </form>
              <FileLies lies={seen.lies} />
              <Keep kept={kept} onChange={(done) => void change(done)} onDone={close} />
            </>
          )}
        </div>
      </Sheet>
    </>
  )
}

/** What is wrong with it, and what would do. */
function Wrong({ problems }: { problems: readonly Problem[] }): ReactNode {
  return problems.map((problem) => (
    <p key={problem.field} role="alert" className="border-2 border-chalk px-3 py-2 font-semibold">
      {problem.message}
      {problem.would_be_right !== '' && `: ${problem.would_be_right}`}
    </p>
  ))
}

interface KeepProps {
  kept: number
  onChange: (done: 'kept' | 'taken_out') => void
  onDone: () => void
}

/** Whether they are kept with the job, and the way back. */
function Keep({ kept, onChange, onDone }: KeepProps): ReactNode {
  return kept === 0 ? (
    <Plate testId="file-keep" onPress={() => onChange('kept')}>
      Keep them with the job
    </Plate>
  ) : (
    <div className="flex flex-wrap items-center gap-3" data-testid="file-kept">
      <b>{kept} readings kept.</b>
      <Button onPress={() => onChange('taken_out')}>Take them out again</Button>
      <Button onPress={onDone}>Done</Button>
    </div>
  )
}

/** The button that a file is taken with. */
function PickFile({ onRead }: { onRead: (text: string) => void }): ReactNode {
  return (
    <label className="flex min-h-11 w-fit cursor-pointer items-center border-[1.5px] border-scribe px-4 font-semibold focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk">
      Bring in a logger's file
      <input
        type="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          void file?.text().then(onRead)
        }}
      />
    </label>
  )
}

/** The readings as they lie on the job clock. */
function FileLies({ lies }: { lies: Seen['lies'] }): ReactNode {
  const shop = useShop()
  const top = Math.max(100, ...lies.map(([, celsius]) => celsius))
  return (
    <div className="h-[190px]">
      <HeatChart
        small
        name="How it lies on the job clock"
        theme={themeOf(shop)}
        units={shop.units}
        until={Math.max(10, lies.at(-1)?.[0] ?? 10)}
        top={Math.ceil((top * 1.1) / 50) * 50}
        plan={[]}
        record={lies.map(([at, celsius]) => ({ minutes: at, celsius }))}
        levels={[]}
        tick={(at) => minutes(at)}
      />
    </div>
  )
}
