import { useJob } from './JobContext'

/** A practice without the plan is in hand: nothing is told of what to do, how hot or how long. */
export function useAlone(): boolean {
  const { view } = useJob()
  return view.practice?.level === 'alone' && !view.practice.ended
}
