import type { ReactNode } from 'react'
import { api, type Problem, type Schemas } from '../../api/client'

export interface ImportButtonProps {
  /** What has to be known of it goes along; empty for nothing. */
  onDone: (id: string, told: string) => void
  onProblem: (message: string) => void
}

const NOT_READ = 400

/** What cannot be read at all was never a job's file; the place in the file says nothing to a welder alone. */
function whatIsWrong(status: number, problem: Problem | undefined): string {
  if (problem === undefined) return 'it cannot be opened.'
  if (status === NOT_READ || problem.field === 'format') {
    return "this is no job's file. Open one that Export to a file made."
  }
  if (problem.field === '' || problem.field === 'version') return `${problem.message}.`
  return `it is damaged, and nothing of it was taken (at ${problem.field}: ${problem.message}).`
}

/** Opens a job's file as a new job. */
export function ImportButton({ onDone, onProblem }: ImportButtonProps): ReactNode {
  const open = async (file: File) => {
    try {
      const { data, error, response } = await api.POST('/api/import', {
        body: null as unknown as Schemas['JobFile'],
        // As it is: the server says what is wrong with it.
        bodySerializer: () => file,
        headers: { 'Content-Type': 'application/json' },
      })
      if (data !== undefined) {
        onDone(
          data.id,
          data.beside_another
            ? `There was a job called ${data.name} already. It stays as it is; this one lies beside it: give one of them another name.`
            : '',
        )
      } else onProblem(`${file.name}: ${whatIsWrong(response.status, error?.problems[0])}`)
    } catch {
      onProblem('The server is not reached.')
    }
  }
  return (
    <label className="flex min-h-11 cursor-pointer items-center border-[1.5px] border-scribe px-4 font-semibold focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk">
      Open a file
      <input
        type="file"
        accept=".json,application/json"
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file !== undefined) void open(file)
          event.target.value = ''
        }}
      />
    </label>
  )
}
