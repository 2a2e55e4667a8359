import type { ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { api, dataOf } from '../../api/client'
import { newId } from '../../api/queue/new-id'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useToggleUnits } from '../../keys/useToggleUnits'
import { Button } from '../../ui/Button'
import { print } from '../../ui/print'
import { Sheet } from '../../ui/Sheet'
import { History } from './History'
import { LetGo } from './LetGo'
import { useTakingBack } from './useTakingBack'

export interface JobSheetProps {
  open: boolean
  onClose: () => void
}

/** What can be done with the whole job, and everything that was said of it. */
export function JobSheet({ open, onClose }: JobSheetProps): ReactNode {
  const { view, say } = useJob()
  const { units } = useShop()
  const toggleUnits = useToggleUnits()
  const navigate = useNavigate()
  const { undo, redo, told } = useTakingBack()
  const { put_away } = view.job
  const copy = async () => {
    const id = newId()
    const made = dataOf(
      'JobView',
      await api.POST('/api/jobs/{id}/copy', { params: { path: { id: view.id } }, body: { id } }),
    )
    onClose()
    void navigate(`/jobs/${made.id}/part`)
  }
  const practise = async () => {
    const made = dataOf(
      'JobView',
      await api.POST('/api/jobs/{id}/practice/own', {
        params: { path: { id: view.id } },
        body: { id: newId(), level: 'with_the_plan' },
      }),
    )
    onClose()
    void navigate(`/jobs/${made.id}/part`)
  }
  return (
    <Sheet title={view.name} open={open} onOpenChange={onClose}>
      <div className="mb-2 flex flex-wrap gap-2 bench:hidden">
        <Button notYet={undo === null ? 'Nothing to take back' : undefined} onPress={() => undo?.()}>
          Undo
        </Button>
        <Button notYet={redo === null ? 'Nothing to put back' : undefined} onPress={() => redo?.()}>
          Redo
        </Button>
        <Button onPress={toggleUnits}>{units === 'metric' ? 'Show in, °F, lb' : 'Show mm, °C, kg'}</Button>
        {told !== '' && (
          <p role="status" className="w-full font-semibold">
            {told}
          </p>
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <a
          href={`/api/jobs/${view.id}/export`}
          download
          className="flex min-h-11 items-center border-[1.5px] border-scribe px-4 font-semibold"
        >
          Export to a file
        </a>
        <Button onPress={() => void copy()}>Duplicate</Button>
        {view.practice == null && (
          <Button onPress={() => void practise()}>Practise on a part like this</Button>
        )}
        <Button onPress={() => void print('card')}>Print the card</Button>
        <Button onPress={() => void print('strip')}>Print the bench strip</Button>
        <Button
          onPress={() => {
            say({ kind: put_away ? 'bring_back' : 'put_away' })
            onClose()
          }}
        >
          {put_away ? 'Bring back to the rack' : 'Put away'}
        </Button>
      </div>
      {put_away && <LetGo />}
      <History />
    </Sheet>
  )
}
