import { useState, type ReactNode } from 'react'
import { Button } from './Button'

export interface ReasonsProps {
  usual: readonly string[]
  /** What the button beside another reason says. */
  verb: string
  /** For a gloved hand at arm's length. */
  large?: boolean
  onReason: (why: string) => void
}

/** Why: one press for the usual reasons, or another in words. */
export function Reasons({ usual, verb, large = false, onReason }: ReasonsProps): ReactNode {
  const [other, setOther] = useState('')
  const size = large ? 'min-h-[72px] border-2 text-[19px]' : 'min-h-11 border-[1.5px]'
  return (
    <>
      <div className={large ? 'grid grid-cols-2 gap-[9px]' : 'flex flex-wrap gap-2'}>
        {usual.map((why) => (
          <Button key={why} large={large} onPress={() => onReason(why)}>
            {why}
          </Button>
        ))}
      </div>
      <form
        className="mt-3 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (other.trim() === '') return
          onReason(other.trim())
          setOther('')
        }}
      >
        <input
          aria-label="Another reason"
          placeholder="another reason"
          value={other}
          onChange={(event) => setOther(event.target.value)}
          className={`min-w-0 grow border-dim bg-iron px-3 ${size}`}
        />
        <button type="submit" className={`border-dim px-4 font-semibold ${size}`}>
          {verb}
        </button>
      </form>
    </>
  )
}
