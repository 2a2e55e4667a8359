import type { Schemas } from './client'

export type FieldTable = Schemas['FieldTable']
export type FieldHeld = Schemas['FieldHeld']
export type Tables = Schemas['Tables']

/** A field: what is always so of it, and what stands in it. */
export type FieldView = FieldTable & FieldHeld & { key: string }

/** The key of a field of a job, of the shop, or of one crack, neighbour, picture, face or mark of a job. */
export type FieldName =
  | Schemas['JobField']
  | Schemas['ShopField']
  | `crack.${string}.${Schemas['CrackField']}`
  | `neighbour.${string}.${Schemas['NeighbourField']}`
  | `picture.${string}.${Schemas['PictureField']}`
  | `face.${string}.${Schemas['FaceField']}`
  | `mark.${string}.${Schemas['MarkField']}`
  | `store.${string}.${Schemas['StoreField']}`

const NOTHING: FieldHeld = { typed: '', revision: 0 }

/** What is always so of a field, by its key; nothing where there is no such field. */
export function tableOf(tables: Tables, key: string): FieldTable | undefined {
  const plain = tables.fields[key]
  if (plain !== undefined) return plain
  const [room, id, end, ...more] = key.split('.')
  if (id === undefined || end === undefined || more.length > 0) return undefined
  switch (room) {
    case 'crack':
      return tables.of_crack[end]
    case 'neighbour':
      return tables.of_neighbour[end]
    case 'picture':
      return tables.of_picture[end]
    case 'face':
      return tables.of_face[end]
    case 'mark':
      return tables.of_mark[end]
    case 'store':
      return tables.of_store[end]
    default:
      return undefined
  }
}

/** A field with what stands in it; an empty one while nobody has filled it in. */
export function fieldAt(
  tables: Tables,
  held: Readonly<Record<string, FieldHeld>>,
  key: string,
): FieldView | undefined {
  const table = tableOf(tables, key)
  return table === undefined ? undefined : { ...table, ...(held[key] ?? NOTHING), key }
}
