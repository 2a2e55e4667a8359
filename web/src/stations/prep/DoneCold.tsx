import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { typedAndWaiting } from '../../api/queue/queue'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { fieldId } from '../../ui/focus'
import { Marks } from '../../ui/Marks'

/** What cannot be done once it is hot: each said to be done, before it is lit. */
export function DoneCold({ items }: { items: readonly Schemas['PrepItem'][] }): ReactNode {
  const { view, field, waiting, say } = useJob()
  const { units } = useShop()
  // Whoever is quicker than the server goes on from what was pressed, not from what it knows.
  const pressed = typedAndWaiting(waiting, view.id, 'prep.done')?.split(',')
  const chosen = items.filter((item) => pressed?.includes(item.id) ?? item.done).map((item) => item.id)
  return (
    <section aria-label="Done before the heat">
      <h2 className="mt-3 mb-1 text-[20px] leading-7">
        Or all of it at once: done, since it cannot be done hot
      </h2>
      <Marks
        id={fieldId('prep.done')}
        label="Done before the heat"
        choices={items}
        chosen={chosen}
        onChoose={(ids) =>
          say(
            { kind: 'set', key: 'prep.done', typed: ids.join(','), shown_in: units },
            field('prep.done').revision,
          )
        }
      />
    </section>
  )
}
