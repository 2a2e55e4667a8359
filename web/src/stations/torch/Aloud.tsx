import type { ReactNode } from 'react'
import { minutes } from '../../quantity/show'
import type { Schemas } from '../../api/client'

/** What is to be done next, in words. */
export function Next({ words, cools }: { words: string; cools: boolean }): ReactNode {
  return (
    <p className="text-[28px] leading-8" data-testid="torch-next">
      <b>{words}.</b> {cools && <span className="text-[17px] text-ash">It cools by itself.</span>}
    </p>
  )
}

/** What is said aloud: nothing comes from the pad any more, or a limit was passed. */
export function Aloud({ silent, passed }: { silent: string; passed: readonly string[] }): ReactNode {
  return (
    <>
      {silent !== '' && (
        <p
          role="alert"
          className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold"
          data-testid="silent"
        >
          {silent}
        </p>
      )}
      {passed.map((words) => (
        <p key={words} role="alert" className="border-2 border-chalk px-3 py-2 text-[17px] font-semibold">
          {words}
        </p>
      ))}
    </>
  )
}

export interface GasesProps {
  gases: readonly Schemas['TorchClock'][]
  /** Minutes on the job clock. */
  now: number
}

/** How long each gas lasts yet. */
export function Gases({ gases, now }: GasesProps): ReactNode {
  return (
    <>
      {gases.map((gas) => (
        <p key={gas.words} className="text-[17px]" data-testid="torch-gas">
          <span className="inline-block first-letter:uppercase">{gas.words}</span>:{' '}
          <b>{minutes(gas.ends_min - now)}</b>, then {gas.then}.
        </p>
      ))}
    </>
  )
}
