import { useQuery } from '@tanstack/react-query'
import { faceHeatQuery } from '../../../api/queries'
import { useJob } from '../../../job/JobContext'
import { useShop } from '../../../job/ShopContext'

/** Whether the drawn face is reckoned with: then what the bar would say of its tips is said by the face. */
export function useReckoned(): boolean {
  const { view } = useJob()
  const { revision, units } = useShop()
  const drawn = view.plan.map.faces.some((face) => face.rims.length > 0 && face.lines.length > 0)
  const seen = useQuery({
    ...faceHeatQuery(view.id, view.revision, revision, units, { at: null, swept: false }),
    enabled: drawn,
  })
  return (seen.data?.heat ?? null) !== null
}
