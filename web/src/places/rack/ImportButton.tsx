import type { ReactNode } from 'react'
import { api, type Schemas } from '../../api/client'

export interface ImportButtonProps {
  onDone: (id: string) => void
  onProblem: (message: string) => void
}

/** Opens a job's file as a new job. */
export function ImportButton({ onDone, onProblem }: ImportButtonProps): ReactNode {
  const open = async (file: File) => {
    try {
      const { data, error } = await api.POST('/api/import', {
        body: null as unknown as Schemas['JobFile'],
        // As it is: the server says what is wrong with it.
        bodySerializer: () => file,
        headers: { 'Content-Type': 'application/json' },
      })
      if (data !== undefined) onDone(data.id)
      else onProblem(`${file.name}: ${error?.problems[0]?.message ?? 'it cannot be opened'}`)
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
