import { useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { api, dataOf } from '../../api/client'
import { newId } from '../../api/queue/new-id'
import { outbox, sender } from '../../api/queue/outbox'
import { useJob, useLive } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useShortcut } from '../../keys/useShortcut'
import { useToggleUnits } from '../../keys/useToggleUnits'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'
import { History } from './History'
import { LetGo } from './LetGo'

/** Saved or waiting, undo, units, and what can be done with the whole job. */
export function JobTools(): ReactNode {
  const { view, say, waiting } = useJob()
  const { reached } = useLive()
  const { units } = useShop()
  const toggleUnits = useToggleUnits()
  const navigate = useNavigate()
  const [open, setOpen] = useState(false)
  const { own_words, put_away } = view.job
  // Everybody takes back their own word.
  const own = own_words.find((word) => word.sender === sender)
  const last = own?.undo ?? null
  const redone = own?.redo ?? null
  const canUndo = outbox.canUndo(view.id, last)
  const undo = () => outbox.undo(view.id, last)
  const redo = () => {
    if (redone !== null && waiting.length === 0) say({ kind: 'redo', target: redone })
  }
  useShortcut('z', undo)
  useShortcut('y', redo)
  const copy = async () => {
    const id = newId()
    const made = dataOf(
      'JobView',
      await api.POST('/api/jobs/{id}/copy', { params: { path: { id: view.id } }, body: { id } }),
    )
    void navigate(`/jobs/${made.id}/part`)
  }
  const tool = 'min-h-11 px-2 text-ash disabled:text-scribe'
  return (
    <div className="absolute top-0 right-0 flex items-center bg-iron pl-3">
      <span role="status" className="px-2 text-ash" data-testid="saved">
        {waiting.length > 0
          ? `${waiting.length} waiting for the server`
          : reached
            ? 'saved'
            : 'server not reached'}
      </span>
      <button type="button" className={tool} onClick={undo} disabled={!canUndo}>
        Undo
      </button>
      <button type="button" className={tool} onClick={redo} disabled={redone === null || waiting.length > 0}>
        Redo
      </button>
      <button type="button" className={tool} onClick={toggleUnits}>
        {units === 'metric' ? 'mm, °C' : 'in, °F'}
      </button>
      <button type="button" className={tool} onClick={() => setOpen(true)}>
        Job
      </button>
      <Sheet title={view.name} open={open} onOpenChange={setOpen}>
        <div className="flex flex-wrap gap-2">
          <a
            href={`/api/jobs/${view.id}/export`}
            download
            className="flex min-h-11 items-center border-[1.5px] border-scribe px-4 font-semibold"
          >
            Export to a file
          </a>
          <Button onPress={() => void copy()}>Duplicate</Button>
          <Button
            onPress={() => {
              say({ kind: put_away ? 'bring_back' : 'put_away' })
              setOpen(false)
            }}
          >
            {put_away ? 'Bring back to the rack' : 'Put away'}
          </Button>
        </div>
        {put_away && <LetGo />}
        <History />
      </Sheet>
    </div>
  )
}
