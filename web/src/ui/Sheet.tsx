import { Dialog } from 'radix-ui'
import { useRef, type ReactNode } from 'react'
import { focusWork } from './focus'
import { useHot } from './hot'
import { OnTop } from './OnTop'
import { useStop } from './stop'

export interface SheetProps {
  title: string
  open: boolean
  onOpenChange: (open: boolean) => void
  /** It says itself how the work is stopped. */
  stops?: boolean
  /** Much lies side by side on it. */
  wide?: boolean
  children: ReactNode
}

/** Something that lies on top for a moment: a raised, scribed plate. */
export function Sheet({
  title,
  open,
  onOpenChange,
  stops = false,
  wide = false,
  children,
}: SheetProps): ReactNode {
  const before = useRef<Element | null>(null)
  const next = useRef<HTMLElement | null>(null)
  const hot = useHot()
  const stop = useStop()
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="no-print fixed inset-0 z-40 bg-iron opacity-75" />
        <Dialog.Content
          aria-describedby={undefined}
          // The keys go from one of its fields to another. In between nothing has them, and a sheet that loses a line just
          // then (the unit keys of a field that is left) would take them itself, from the field that was pressed.
          onBlur={({ currentTarget, relatedTarget }) => {
            next.current =
              relatedTarget instanceof HTMLElement && currentTarget.contains(relatedTarget)
                ? relatedTarget
                : null
          }}
          onFocus={({ currentTarget, target }) => {
            const meant = next.current
            next.current = null
            if (target === currentTarget) meant?.focus()
          }}
          onOpenAutoFocus={() => {
            before.current = document.activeElement
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault()
            const opener = before.current
            if (opener instanceof HTMLElement && opener.isConnected && opener !== document.body)
              opener.focus()
            else focusWork()
          }}
          className={`no-print fixed left-1/2 z-50 ${wide ? 'top-[4vh] max-h-[92vh] w-[880px]' : 'top-[12vh] max-h-[80vh] w-[560px]'} max-w-[calc(100vw-48px)] -translate-x-1/2 overflow-auto border-[1.5px] border-chalk bg-raise p-6 max-bench:top-auto max-bench:bottom-0 max-bench:left-0 max-bench:max-h-[88vh] max-bench:w-full max-bench:max-w-none max-bench:translate-x-0 max-bench:p-4`}
        >
          <OnTop />
          <div className="sticky top-0 z-10 flex items-start justify-between gap-3 bg-raise">
            <Dialog.Title className="min-w-0 text-[28px] leading-8 [overflow-wrap:anywhere]">
              {title}
            </Dialog.Title>
            <Dialog.Close className="-mt-1.5 min-h-11 shrink-0 px-2 text-ash">Close</Dialog.Close>
          </div>
          {stop !== null && !stops && (
            <button
              type="button"
              className="sticky top-11 z-10 mt-2 flex min-h-14 w-full items-center justify-center gap-2 border-2 border-dim bg-raise text-[19px] font-semibold"
              onClick={() => {
                onOpenChange(false)
                // This sheet is gone before the one that says how to stop is there.
                setTimeout(stop, 0)
              }}
            >
              <span aria-hidden className="size-5 shrink-0 border-[2.5px] border-chalk" /> It must stop
            </button>
          )}
          {hot !== '' && <p className="words mt-2 text-[20px] leading-6">{hot}</p>}
          <div className="mt-4">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
