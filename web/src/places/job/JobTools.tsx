import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { Station } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { useShortcut } from '../../keys/useShortcut'
import { useToggleUnits } from '../../keys/useToggleUnits'
import { JobSheet } from './JobSheet'
import { NoteSheet } from './NoteSheet'
import { useTakingBack } from './useTakingBack'

/** Saved or waiting, undo, units, and what can be done with the whole job. */
export function JobTools({ station }: { station: Station }): ReactNode {
  const { waiting, typed } = useJob()
  const { reached } = useLive()
  const { units } = useShop()
  const toggleUnits = useToggleUnits()
  const { undo, redo, told } = useTakingBack()
  useShortcut('z', () => undo?.())
  useShortcut('y', () => redo?.())
  const [sheet, setSheet] = useState<'job' | 'note' | null>(null)
  const noted = typed(`note.${station}`) !== ''
  const tool = 'min-h-11 min-w-11 px-2 text-ash disabled:text-scribe'
  return (
    <div className="absolute top-0 right-0 flex items-center bg-iron pl-3">
      {told !== '' && (
        <span role="status" className="max-w-[460px] truncate px-2 font-semibold" data-testid="told">
          {told}
        </span>
      )}
      <span role="status" className="px-2 text-ash" data-testid="saved">
        {waiting.length > 0
          ? `${waiting.length} waiting for the server`
          : reached
            ? 'saved'
            : 'server not reached'}
      </span>
      <button type="button" className={tool} onClick={undo ?? undefined} disabled={undo === null}>
        Undo
      </button>
      <button type="button" className={tool} onClick={redo ?? undefined} disabled={redo === null}>
        Redo
      </button>
      <button type="button" className={tool} onClick={toggleUnits}>
        {units === 'metric' ? 'mm, °C' : 'in, °F'}
      </button>
      <button
        type="button"
        className={`${tool} ${noted ? 'font-semibold text-chalk' : ''}`}
        onClick={() => setSheet('note')}
      >
        {noted ? 'Note here' : 'Note'}
      </button>
      <Link to="/reckoner" className={`${tool} flex items-center`}>
        Reckon
      </Link>
      <button type="button" className={tool} onClick={() => setSheet('job')}>
        Job
      </button>
      <NoteSheet station={station} open={sheet === 'note'} onClose={() => setSheet(null)} />
      <JobSheet open={sheet === 'job'} onClose={() => setSheet(null)} />
    </div>
  )
}
