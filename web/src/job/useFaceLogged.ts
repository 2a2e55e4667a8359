import { useQuery } from '@tanstack/react-query'
import { faceLoggedQuery } from '../api/queries'
import { useJob, useLive } from './JobContext'
import { useShop } from './ShopContext'

/** Ours: a face that is being heated is worked out anew so often, in min of the job clock. */
const ANEW_MIN = 2

/** The drawn face as it was heated since it was lit, by what was said and read. */
export function useFaceLogged(enabled = true) {
  const { view } = useJob()
  const { live } = useLive()
  const { revision, units } = useShop()
  const since = Math.floor((live?.minutes ?? 0) / ANEW_MIN)
  return useQuery({ ...faceLoggedQuery(view.id, view.revision, revision, units, since), enabled })
}
