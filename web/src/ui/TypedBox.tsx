import { useState, type ComponentProps, type ReactNode } from 'react'
import { UnitKeys } from './UnitKeys'

export interface TypedBoxProps extends Omit<ComponentProps<'input'>, 'value' | 'onChange'> {
  text: string
  onType: (text: string) => void
  wrong: boolean
  /** The unit, or what else stands behind what is typed. */
  aside: string
  /** A number is typed: what is pressed beside the number keys of a phone. Nothing where words are. */
  keys?: readonly string[] | null | undefined
}

/** One line that is typed into, with what stands behind it and the keys that a phone has not. */
export function TypedBox(props: TypedBoxProps): ReactNode {
  const { text, onType, wrong, aside, keys, onFocus, onBlur, ...input } = props
  const [letters, setLetters] = useState(false)
  const [typing, setTyping] = useState(false)
  return (
    <span className="relative block">
      <span
        className={`flex min-h-12 items-center border-[1.5px] bg-raise focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk ${wrong ? 'border-b-4 border-dim border-b-chalk' : 'border-dim'}`}
      >
        <input
          autoComplete="off"
          spellCheck={false}
          {...input}
          value={text}
          inputMode={keys == null || letters ? undefined : 'decimal'}
          aria-invalid={wrong || undefined}
          onChange={(event) => onType(event.target.value)}
          onFocus={(event) => {
            setTyping(true)
            onFocus?.(event)
          }}
          onBlur={(event) => {
            setTyping(false)
            onBlur?.(event)
          }}
          className="min-w-0 grow self-stretch bg-transparent px-2.5 py-2 text-[19px] font-semibold outline-none placeholder:font-normal placeholder:text-ash"
        />
        <span className="shrink-0 pr-2 text-ash">{aside}</span>
      </span>
      {typing && keys != null && (
        <UnitKeys
          keys={keys}
          text={text}
          onType={onType}
          letters={letters}
          onLetters={setLetters}
          lies={wrong ? 'above' : 'below'}
        />
      )}
    </span>
  )
}
