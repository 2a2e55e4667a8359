import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { api, dataOf, Refused, type Schemas } from '../../api/client'
import { rackQuery } from '../../api/queries'
import { newId } from '../../api/queue/new-id'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Fold } from '../../ui/Fold'

export interface TeacherProps {
  results: readonly Schemas['HandedBack'][]
  level: Schemas['Level']
  onProblem: (problem: string) => void
}

/** A case that was handed out is opened; results that were handed back are read; a case of one's own is sealed. */
export function Teacher({ results, level, onProblem }: TeacherProps): ReactNode {
  const [open, setOpen] = useState(results.length > 0)
  const navigate = useNavigate()
  const client = useQueryClient()
  const read = async (file: File, take: (text: string) => Promise<void>) => {
    onProblem('')
    try {
      await take(await file.text())
    } catch (error) {
      const why =
        error instanceof SyntaxError ? 'that is no such file' : error instanceof Refused ? error.message : ''
      onProblem(why === '' ? 'The server is not reached.' : `${file.name}: ${why}.`)
    }
  }
  const openCase = async (text: string) => {
    const file = JSON.parse(text) as Schemas['CaseFile']
    const made = dataOf(
      'JobView',
      await api.POST('/api/practice/case', { body: { id: newId(), file, level } }),
    )
    void navigate(`/jobs/${made.id}/part`)
  }
  const readResult = async (text: string) => {
    const body = JSON.parse(text) as Schemas['ResultFile']
    dataOf('ReadBack', await api.POST('/api/practice/results', { body }))
    await client.invalidateQueries({ queryKey: ['practice'] })
  }
  return (
    <Fold title="Teaching" summary="cases handed out, results handed back" open={open} onOpenChange={setOpen}>
      <div className="flex flex-wrap gap-2">
        <FileButton onFile={(file) => void read(file, openCase)}>Open a case</FileButton>
        <FileButton onFile={(file) => void read(file, readResult)}>Read a result</FileButton>
      </div>
      {results.length > 0 && (
        <ul aria-label="Results">
          {results.map((result) => (
            <li key={result.practice} className="border-b border-dashed border-scribe py-1">
              <b>{result.who === '' ? 'Somebody' : result.who}</b>: {result.title}, number {result.seed},{' '}
              {result.level === 'alone' ? 'alone' : 'with the plan'}. {result.headline} {result.of_100} of
              100.
            </li>
          ))}
        </ul>
      )}
      <SealOne onProblem={onProblem} />
    </Fold>
  )
}

interface FileButtonProps {
  children: ReactNode
  onFile: (file: File) => void
}

function FileButton({ children, onFile }: FileButtonProps): ReactNode {
  return (
    <label className="flex min-h-11 cursor-pointer items-center border-[1.5px] border-scribe px-4 font-semibold focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk">
      {children}
      <input
        type="file"
        accept=".json,application/json"
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file !== undefined) onFile(file)
          event.target.value = ''
        }}
      />
    </label>
  )
}

const IRONS = [
  { id: 'gray', label: 'Gray' },
  { id: 'ductile', label: 'Ductile' },
  { id: 'malleable', label: 'Malleable' },
  { id: 'white', label: 'White' },
  { id: 'ni_resist', label: 'Ni-resist' },
  { id: 'steel', label: 'Steel' },
]
const HIDES = [
  { id: 'oil', label: 'Oil' },
  { id: 'locked_in', label: 'Locked-in stress' },
  { id: 'old_bronze', label: 'Old bronze' },
  { id: 'hidden', label: 'A second crack' },
]
const ENDS = [
  { id: '-1', label: 'Nearer than usual' },
  { id: '0', label: 'As usual' },
  { id: '1.5', label: 'Well beyond' },
]
/** House: a second crack is so long, in mm. */
const HIDDEN_MM = 35
/** House: of a hundred parts with a crack so many stand a year as they are. */
const LEFT_ALONE = 0.15

/** A job's part with a secret that its maker alone knows, sealed in a file. */
function SealOne({ onProblem }: { onProblem: (problem: string) => void }): ReactNode {
  const rack = useQuery(rackQuery(false, '', 0))
  const [job, setJob] = useState('')
  const [title, setTitle] = useState('')
  const [words, setWords] = useState('')
  const [iron, setIron] = useState('gray')
  const [beyond, setBeyond] = useState('0')
  const [hides, setHides] = useState<readonly string[]>([])
  const ready = job !== '' && title.trim() !== ''
  const seal = async () => {
    onProblem('')
    try {
      const file = dataOf(
        'CaseFile',
        await api.POST('/api/jobs/{id}/practice/case', {
          params: { path: { id: job } },
          body: {
            title: title.trim(),
            words: words.trim(),
            made_by: '',
            iron: iron as Schemas['Iron'],
            beyond: Number(beyond),
            oil: hides.includes('oil'),
            locked_in: hides.includes('locked_in'),
            old_bronze: hides.includes('old_bronze'),
            hidden_mm: hides.includes('hidden') ? HIDDEN_MM : null,
            left_alone: LEFT_ALONE,
          },
        }),
      )
      save(JSON.stringify(file, null, 1), `practice-case-${file.of.seed}.json`)
    } catch (error) {
      onProblem(error instanceof Refused ? `${error.message}.` : 'The server is not reached.')
    }
  }
  const box = 'min-h-11 border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk'
  return (
    <section aria-label="Seal a case" className="flex flex-col gap-2 border-t border-rule pt-2">
      <h3 className="label">Hand out a part of this shop, with a secret</h3>
      <label className="label flex flex-col gap-1">
        <span>Which part</span>
        <select value={job} onChange={(event) => setJob(event.target.value)} className={box}>
          <option value="">Choose one</option>
          {rack.data?.lines.map((line) => (
            <option key={line.id} value={line.id}>
              {line.name}
            </option>
          ))}
        </select>
      </label>
      <label className="label flex flex-col gap-1">
        <span>What it is called</span>
        <input
          value={title}
          maxLength={80}
          onChange={(event) => setTitle(event.target.value)}
          className={box}
        />
      </label>
      <label className="label flex flex-col gap-1">
        <span>What its owner says</span>
        <input
          value={words}
          maxLength={300}
          onChange={(event) => setWords(event.target.value)}
          className={box}
        />
      </label>
      <Choice
        label="What iron it really is"
        choices={IRONS}
        chosen={iron}
        onChoose={(id) => setIron(id || iron)}
      />
      <Choice
        label="Where its cracks really end"
        choices={ENDS}
        chosen={beyond}
        onChoose={(id) => setBeyond(id || beyond)}
      />
      <div role="group" aria-label="What it hides" className="flex flex-wrap gap-2">
        {HIDES.map(({ id, label }) => (
          <Button
            key={id}
            chosen={hides.includes(id)}
            onPress={() =>
              setHides(hides.includes(id) ? hides.filter((known) => known !== id) : [...hides, id])
            }
          >
            {label}
          </Button>
        ))}
      </div>
      <Button notYet={ready ? undefined : 'Choose a part and give it a name'} onPress={() => void seal()}>
        Seal it into a file
      </Button>
      <p className="small text-ash">A seal keeps the secret from being read in passing. It is no lock.</p>
    </section>
  )
}

/** Hands a text to the browser as a file. */
function save(text: string, name: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  URL.revokeObjectURL(url)
}
