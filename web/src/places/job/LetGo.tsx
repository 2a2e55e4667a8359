import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { api, Refused, type Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'
import { Plain } from '../../ui/Plain'

/** A job that was put away can be let go for good: after its file was taken, and by its name. */
export function LetGo(): ReactNode {
  const { view } = useJob()
  const navigate = useNavigate()
  const queryClient = useQueryClient()
  const [name, setName] = useState('')
  const [taken, setTaken] = useState(false)
  const letGo = useMutation({
    mutationFn: async () => {
      const { response, error } = await api.POST('/api/jobs/{id}/let-go', {
        params: { path: { id: view.id } },
        body: { name },
      })
      if (error !== undefined) throw new Refused(response.status, (error as Schemas['ProblemsBody']).problems)
    },
    onSuccess: () => {
      void navigate('/?away')
      queryClient.removeQueries({ queryKey: ['job', view.id] })
      void queryClient.invalidateQueries({ queryKey: ['rack'] })
    },
  })
  const problem = letGo.error instanceof Refused ? letGo.error.problems[0] : undefined
  const wrong =
    problem !== undefined ? `${problem.message}.` : letGo.isError ? 'The server is not reached.' : ''
  return (
    <section aria-label="Let it go for good" className="mt-5 flex flex-col gap-3 border-t border-rule pt-4">
      <h3 className="text-[22px]">Let it go for good</h3>
      <p>
        Its log, readings and pictures are deleted and cannot be brought back. Take its file first: it opens
        again as a new job.
      </p>
      <a
        href={`/api/jobs/${view.id}/export`}
        download
        onClick={() => setTaken(true)}
        className="flex min-h-11 items-center self-start border-[1.5px] border-scribe px-4 font-semibold"
      >
        Take its file
      </a>
      <Plain
        label="Type its name to let it go"
        value={name}
        hint={view.name}
        wrong={wrong}
        onChange={setName}
      />
      <Button
        onPress={() => letGo.mutate()}
        notYet={!taken ? 'Take its file first' : name === '' ? 'Type its name first' : undefined}
      >
        Delete this job
      </Button>
    </section>
  )
}
