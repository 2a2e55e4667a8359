import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useTables } from '../../job/TablesContext'
import { Button } from '../../ui/Button'
import { OpenPocket } from '../../job/tests-of-iron/OpenPocket'

/** What this work shows of the iron by the way: said here, counted at Iron. */
export function WorkTells({ test }: { test: Schemas['LookTest'] }): ReactNode {
  const { say } = useJob()
  const { roll } = useTables()
  const [open, setOpen] = useState(false)
  const look = roll.find((known) => known.test === test)
  if (look === undefined) return null
  return (
    <div className="pb-2 pl-9 max-bench:pl-0" data-testid={`tells.${test}`}>
      <Button chosen={open} onPress={() => setOpen(!open)}>
        {test === 'drill' ? 'Its chip tells the iron' : 'Its sparks tell the iron'}
      </Button>
      {open && (
        <div className="mt-2">
          <OpenPocket
            test={look}
            chosen=""
            onObserve={(outcome) => {
              say({ kind: 'observe', test, outcome, confidence: 'sure', spot: 'first spot' }, 0)
              setOpen(false)
            }}
          />
        </div>
      )}
    </div>
  )
}
