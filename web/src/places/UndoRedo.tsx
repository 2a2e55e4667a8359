import type { ReactNode } from 'react'
import type { ShopFields } from './useShopFields'

const tool = 'min-h-11 px-2 text-ash disabled:text-scribe'

/** Takes back, and puts back, what was said of the shop from here. */
export function UndoRedo({ fields }: { fields: ShopFields }): ReactNode {
  return (
    <>
      <button type="button" className={tool} onClick={fields.undo} disabled={!fields.canUndo}>
        Undo
      </button>
      <button type="button" className={tool} onClick={fields.redo} disabled={!fields.canRedo}>
        Redo
      </button>
    </>
  )
}
