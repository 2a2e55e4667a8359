import type { ReactNode } from 'react'

export interface BoxProps {
  id: string
  text: string
  placeholder?: string | undefined
  /** The unit it is in. */
  aside: string
  wrong: boolean
  describedBy?: string | undefined
  /** Only a number goes in. */
  number?: boolean
  onType: (text: string) => void
}

/** A field whose text is said together with others. */
export function Box({
  id,
  text,
  placeholder,
  aside,
  wrong,
  describedBy,
  number = false,
  onType,
}: BoxProps): ReactNode {
  return (
    <span
      className={`flex min-h-12 items-center border-[1.5px] bg-raise focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk ${wrong ? 'border-b-4 border-dim border-b-chalk' : 'border-dim'}`}
    >
      <input
        id={id}
        value={text}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        inputMode={number ? 'decimal' : undefined}
        aria-invalid={wrong || undefined}
        aria-describedby={describedBy}
        onChange={(event) => onType(event.target.value)}
        className="min-w-0 grow self-stretch bg-transparent px-2.5 py-2 text-[19px] font-semibold outline-none placeholder:font-normal placeholder:text-ash"
      />
      <span className="shrink-0 pr-2 text-ash">{aside}</span>
    </span>
  )
}
