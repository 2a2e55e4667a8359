import { useId, type ReactNode } from 'react'

export interface PlainProps {
  label: string
  value: string
  onChange: (value: string) => void
  /** What might stand here. */
  hint?: string
  /** It is not shown as it is typed. */
  secret?: boolean
  /** What is wrong with it; empty for nothing. */
  wrong?: string
  /** The cursor stands in it at the start. */
  focus?: boolean
}

/** One line of words that is said together with others, by a button. */
export function Plain(props: PlainProps): ReactNode {
  const { label, value, onChange, hint, secret = false, wrong = '', focus = false } = props
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="label mb-1 block">
        <span>{label}</span>
      </label>
      <input
        id={id}
        type={secret ? 'password' : 'text'}
        value={value}
        placeholder={hint}
        autoComplete={secret ? 'current-password' : 'off'}
        autoFocus={focus}
        spellCheck={false}
        aria-invalid={wrong !== '' || undefined}
        aria-describedby={wrong === '' ? undefined : `${id}-wrong`}
        onChange={(event) => onChange(event.target.value)}
        className="min-h-12 w-full border-[1.5px] border-dim bg-raise px-2.5 text-[19px] font-semibold placeholder:font-normal placeholder:text-ash aria-invalid:border-b-4 aria-invalid:border-b-chalk"
      />
      {wrong !== '' && (
        <p id={`${id}-wrong`} role="alert" className="mt-1">
          {wrong}
        </p>
      )}
    </div>
  )
}
