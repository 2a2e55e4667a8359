import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { api, dataOf, Refused, type Schemas } from '../../api/client'
import { doorQuery } from '../../api/queries'
import { device } from '../../api/queue/device'
import { useShop } from '../../job/ShopContext'
import { dayOfYear } from '../../quantity/show'
import { Button } from '../../ui/Button'
import { FieldFrame } from '../../ui/FieldFrame'
import { Plain } from '../../ui/Plain'
import { Sheet } from '../../ui/Sheet'
import { TypedInput } from '../../ui/TypedInput'

/** What this device is called, who else may come in, and by which passphrase. */
export function ComeIn(): ReactNode {
  const door = useQuery(doorQuery())
  const [name, setName] = useState(device.name())
  return (
    <section aria-label="Who may come in" className="flex flex-col gap-3 pt-3">
      <h2 className="text-[24px]">Who may come in</h2>
      <FieldFrame label="This device is called" id="device-name" problem={undefined}>
        <TypedInput
          id="device-name"
          typed={name}
          aside=""
          wrong={false}
          placeholder="bench"
          onCommit={(typed) => {
            device.call(typed)
            setName(typed.trim())
          }}
        />
      </FieldFrame>
      {door.data !== undefined && <Door door={door.data} />}
    </section>
  )
}

function Door({ door }: { door: Schemas['DoorView'] }): ReactNode {
  const queryClient = useQueryClient()
  const { time_zone } = useShop()
  const [passphrase, setPassphrase] = useState('')
  const [old, setOld] = useState('')
  const [leaves, setLeaves] = useState<Schemas['Device'] | null>(null)
  const stands = (view: Schemas['DoorView']) => queryClient.setQueryData(doorQuery().queryKey, view)
  const set = useMutation({
    mutationFn: async () =>
      dataOf('DoorView', await api.POST('/api/door/passphrase', { body: { passphrase, old } })),
    onSuccess: (view) => {
      setPassphrase('')
      setOld('')
      stands(view)
    },
  })
  const turnOut = useMutation({
    mutationFn: async (id: string) =>
      dataOf('DoorView', await api.POST('/api/door/out', { body: { device: id } })),
    onSuccess: (view) => {
      setLeaves(null)
      stands(view)
    },
  })
  const refused = set.error instanceof Refused ? set.error.problems[0] : undefined
  const wrong =
    refused !== undefined
      ? `${refused.message}: ${refused.would_be_right}`
      : set.isError || turnOut.isError
        ? 'The server is not reached.'
        : ''
  const day = (ms: number) => dayOfYear(ms, time_zone)
  return (
    <>
      <p className="text-ash">
        {door.asks
          ? 'Other devices say the passphrase once and are then known for 90 days.'
          : 'Nobody is asked for a passphrase: the server answers this machine alone, or was started open to all.'}
      </p>
      {door.is_set && !door.here && (
        <Plain label="The passphrase until now" value={old} secret wrong="" onChange={setOld} />
      )}
      <Plain
        label={door.is_set ? 'Another passphrase' : 'A passphrase, for when others are let in'}
        value={passphrase}
        secret
        wrong={wrong}
        onChange={setPassphrase}
      />
      <Button onPress={() => set.mutate()} notYet={passphrase === '' ? 'Type one first' : undefined}>
        {set.isSuccess && passphrase === '' ? 'It is set' : 'Set it'}
      </Button>
      {door.devices.length > 0 && (
        <ul aria-label="Known devices" className="flex flex-col">
          {door.devices.map((known) => (
            <li
              key={known.id}
              className="flex min-h-12 items-center justify-between gap-3 border-b border-rule"
            >
              <span className="min-w-0 truncate">
                <b>{known.name === '' ? 'A device without a name' : known.name}</b>{' '}
                <span className="label">
                  {known.helps == null ? 'since' : 'helps at the torch of one job, since'}{' '}
                  {day(known.known_ms)}
                  {known.id === door.device && ', this one'}
                </span>
              </span>
              <Button onPress={() => setLeaves(known)}>Turn out</Button>
            </li>
          ))}
        </ul>
      )}
      <Sheet
        title={`Turn out ${leaves?.name === '' ? 'a device without a name' : (leaves?.name ?? '')}?`}
        open={leaves !== null}
        onOpenChange={(open) => {
          if (!open) setLeaves(null)
        }}
      >
        <p>
          It has to say the passphrase again. What it keeps of the shop is deleted the next time it asks:
          pages, pictures, and entries that were not sent. Those are lost.
        </p>
        <div className="mt-4 flex flex-wrap gap-3">
          <Button
            onPress={() => {
              if (leaves !== null) turnOut.mutate(leaves.id)
            }}
          >
            Turn it out
          </Button>
          <Button onPress={() => setLeaves(null)}>Leave it in</Button>
        </div>
      </Sheet>
    </>
  )
}
