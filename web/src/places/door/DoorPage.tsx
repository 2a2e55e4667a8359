import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { api, dataOf, Refused } from '../../api/client'
import { device } from '../../api/queue/device'
import { remembersAgain } from '../../api/queue/forget'
import { Crystal } from '../../ui/Crystal'
import { Plain } from '../../ui/Plain'
import { WORK_SURFACE } from '../../ui/focus'
import { Plate } from '../../ui/Plate'

const problemOf = ({ problems: [problem], message }: Refused): string =>
  problem === undefined ? message : `${problem.message}: ${problem.would_be_right}`

/** This device is not known to the shop: it says the passphrase once, and then for 90 days no more. */
export function DoorPage(): ReactNode {
  const queryClient = useQueryClient()
  const [passphrase, setPassphrase] = useState('')
  const [name, setName] = useState(device.name())
  const comeIn = useMutation({
    mutationFn: async () => {
      device.call(name)
      return dataOf('DoorView', await api.POST('/api/door', { body: { passphrase, name } }))
    },
    onSuccess: () => {
      remembersAgain()
      void queryClient.invalidateQueries()
    },
  })
  const { mutate: help, ...helping } = useMutation({
    mutationFn: async (code: string) =>
      dataOf('DoorView', await api.POST('/api/door/helped', { body: { code, name } })),
    onSuccess: () => {
      remembersAgain()
      void queryClient.invalidateQueries()
    },
  })
  // A helper's phone was shown the way here with its code: it lets one in once, and stays in no history.
  useEffect(() => {
    const code = window.location.hash.slice(1)
    if (code === '' || !window.location.pathname.endsWith('/helper')) return
    window.history.replaceState(window.history.state, '', window.location.pathname)
    help(code)
  }, [help])
  const say = () => {
    if (passphrase !== '') comeIn.mutate()
  }
  const wrong =
    comeIn.error instanceof Refused
      ? problemOf(comeIn.error)
      : comeIn.isError
        ? 'The server is not reached.'
        : ''
  return (
    <main
      {...WORK_SURFACE}
      aria-label="Door"
      className="mx-auto flex max-w-[460px] flex-col gap-4 px-5 py-10"
    >
      <title>Door - Vanadin</title>
      <div className="flex items-center gap-3">
        <Crystal />
        <h1 className="text-[35px] leading-9">Who is there?</h1>
      </div>
      <p>
        This device is not known to the shop yet. Its passphrase was printed when the server was started the
        first time; whoever sits at that machine can set another one in Shop.
      </p>
      {helping.isError && (
        <p role="alert" className="border-l-[3px] border-chalk pl-3 text-[19px] first-letter:uppercase">
          <b>{helping.error instanceof Refused ? problemOf(helping.error) : 'The server is not reached.'}</b>
        </p>
      )}
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          say()
        }}
      >
        <Plain
          label="The shop's passphrase"
          value={passphrase}
          secret
          wrong={wrong}
          onChange={setPassphrase}
          focus
        />
        <Plain label="What this device is called" value={name} hint="Phone at the forge" onChange={setName} />
        <input type="submit" hidden />
        <Plate inPlace testId="come-in" onPress={say}>
          Come in
        </Plate>
      </form>
    </main>
  )
}
