import { useEffect, useSyncExternalStore } from 'react'
import { flushSync } from 'react-dom'
import { createStore } from 'zustand/vanilla'

/** What is put on paper: the card unless something else is asked for. */
export type Paper = 'card' | 'strip' | 'record' | 'estimate' | 'label'

const asked = createStore<{ paper: Paper | null }>(() => ({ paper: null }))

/** The paper that lies in the printer; nothing while nothing is printed. */
export const usePaper = (): Paper | null =>
  useSyncExternalStore(asked.subscribe, () => asked.getState().paper)

/** Laid out at once: what prints does not wait. */
function lay(paper: Paper): void {
  document.documentElement.dataset['print'] = paper
  flushSync(() => asked.setState({ paper }))
}

function takeAway(): void {
  delete document.documentElement.dataset['print']
  asked.setState({ paper: null })
}

/** Prints one of the papers of the job on the page: it is laid out now, with the pictures that are on it. */
export async function print(paper: Paper): Promise<void> {
  lay(paper)
  const pictures = [...document.images].filter((picture) => !picture.complete)
  // One that cannot be read is left out: the rest is printed.
  await Promise.allSettled(pictures.map((picture) => picture.decode()))
  window.print()
}

/** While the pages of a job are shown, the browser's own print puts the card on paper. */
export function usePrinter(): void {
  useEffect(() => {
    const print = window.matchMedia('print')
    const handlePrint = () => lay(asked.getState().paper ?? 'card')
    const handleMedia = ({ matches }: MediaQueryListEvent) => matches && handlePrint()
    window.addEventListener('beforeprint', handlePrint)
    window.addEventListener('afterprint', takeAway)
    print.addEventListener('change', handleMedia)
    return () => {
      window.removeEventListener('beforeprint', handlePrint)
      window.removeEventListener('afterprint', takeAway)
      print.removeEventListener('change', handleMedia)
      takeAway()
    }
  }, [])
}
