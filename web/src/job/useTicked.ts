import type { Schemas } from '../api/client'
import { stepKey } from './step-key'
import { useJob } from './JobContext'

/** Whether a line is ticked: what was just pressed counts before the server has it. */
export function useTicked(): (line: { step: Schemas['WorkStep']; done: boolean }) => boolean {
  const { waiting } = useJob()
  const said = new Map(
    waiting.flatMap(({ change }) =>
      change.kind === 'tick' ? [[stepKey(change.step), change.done] as const] : [],
    ),
  )
  return (line) => said.get(stepKey(line.step)) ?? line.done
}
