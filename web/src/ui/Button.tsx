import type { ReactNode } from 'react'

export interface ButtonProps {
  children: ReactNode
  onPress: () => void
  chosen?: boolean
  /** Why it cannot be pressed yet: it then says so instead. */
  notYet?: string | undefined
  large?: boolean
  label?: string
  testId?: string
  /** It sends the form it stands in. */
  submit?: boolean
}

/** A button that is not the next thing: scribed edge, hand-sized. */
export function Button({
  children,
  onPress,
  chosen,
  notYet,
  large = false,
  label,
  testId,
  submit = false,
}: ButtonProps): ReactNode {
  return (
    <button
      type={submit ? 'submit' : 'button'}
      onClick={() => {
        if (notYet === undefined) onPress()
      }}
      aria-pressed={chosen}
      aria-disabled={notYet !== undefined || undefined}
      aria-label={label}
      title={notYet}
      data-testid={testId}
      className={[
        'flex items-center justify-center gap-2 px-4 font-semibold whitespace-nowrap',
        large ? 'min-h-[72px] border-2 border-dim text-[19px]' : 'min-h-11 border-[1.5px] border-scribe',
        'aria-pressed:border-chalk aria-pressed:bg-raise',
        'aria-disabled:border-dashed aria-disabled:text-ash',
      ].join(' ')}
    >
      {children}
    </button>
  )
}
