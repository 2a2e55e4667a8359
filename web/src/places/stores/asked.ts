import type { Schemas } from '../../api/client'

type StoreField = Schemas['StoreField']

/** What is asked of a thing, the amount first; only what makes sense of its kind. */
export function askedOf(kind: string, shelf: Schemas['Shelf']): readonly StoreField[] {
  switch (shelf) {
    case 'rods':
      return kind.endsWith('_wire') || kind === 'flux'
        ? ['amount', 'price', 'name', 'lot', 'opened', 'place']
        : ['amount', 'size', 'price', 'name', 'lot', 'opened', 'place']
    case 'gas':
      return ['holds', 'amount', 'price', 'lot', 'opened', 'place']
    case 'reading':
      return kind === 'stick' ? ['melts', 'amount', 'place'] : ['amount', 'name', 'place']
    case 'packing':
      return ['amount', 'price', 'place']
    case 'stitching':
    case 'bench':
      return ['amount', 'size', 'price', 'name', 'place']
    case 'wear':
      return ['amount', 'price', 'opened', 'place']
  }
}

/** What is looked at to find out what a bundle without a name is. */
export const SIGNS: readonly StoreField[] = ['look', 'magnet', 'filed', 'spark', 'bead']
