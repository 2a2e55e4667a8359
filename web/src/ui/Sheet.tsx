import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'

export interface SheetProps {
  title: string
  open: boolean
  onOpenChange: (open: boolean) => void
  children: ReactNode
}

/** Something that lies on top for a moment: a raised, scribed plate. */
export function Sheet({ title, open, onOpenChange, children }: SheetProps): ReactNode {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-iron opacity-75" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 max-h-[80vh] w-[560px] max-w-[calc(100vw-48px)] -translate-x-1/2 overflow-auto border-[1.5px] border-chalk bg-raise p-6"
        >
          <Dialog.Title className="text-[28px] leading-8">{title}</Dialog.Title>
          <div className="mt-4">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
