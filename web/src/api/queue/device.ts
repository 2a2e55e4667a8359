import { store } from './store'

const NAME = 'vanadin.who'

/** What this device is called: it stands beside what is said from it. */
export const device = {
  name: (): string => store.read(NAME) ?? '',
  /** What the log says of it where nobody called it anything. */
  said: (): string => store.read(NAME) ?? 'bench',
  call(name: string): void {
    const called = name.trim()
    if (called === '') store.remove(NAME)
    else store.write(NAME, called)
  },
}
