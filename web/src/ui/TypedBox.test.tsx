// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it } from 'vitest'
import { useState } from 'react'
import { TypedBox } from './TypedBox'

function One({ keys }: { keys?: readonly string[] }) {
  const [text, setText] = useState('')
  return <TypedBox aria-label="Wall" text={text} onType={setText} wrong={false} aside="mm" keys={keys} />
}

const field = () => screen.getByLabelText<HTMLInputElement>('Wall')
const key = (name: string) => screen.getByRole('button', { name, hidden: true })

afterEach(cleanup)

it('a number asks for the number keys, and has its units beside them while it is typed', async () => {
  render(<One keys={['mm', 'in', '/']} />)
  expect([field().inputMode, screen.queryByRole('group', { hidden: true })]).toEqual(['decimal', null])
  await userEvent.type(field(), '7')
  await userEvent.click(key('/'))
  await userEvent.keyboard('16')
  await userEvent.click(key('mm'))
  await userEvent.click(key('in'))
  expect(field().value).toBe('7/16 in')
  expect(document.activeElement).toBe(field())
  await userEvent.tab()
  expect(screen.queryByRole('group', { hidden: true })).toBeNull()
})

it('letters are a press away, and numbers again', async () => {
  render(<One keys={[]} />)
  await userEvent.click(field())
  await userEvent.click(key('abc'))
  expect(field().getAttribute('inputmode')).toBeNull()
  await userEvent.click(key('123'))
  expect(field().getAttribute('inputmode')).toBe('decimal')
})

it('words are typed by letters, without any of it', async () => {
  render(<One />)
  await userEvent.click(field())
  expect(field().getAttribute('inputmode')).toBeNull()
  expect(screen.queryByRole('group', { hidden: true })).toBeNull()
})
