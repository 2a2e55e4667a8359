// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Choice } from './Choice'
import { focusField, goOn, isInAField, isWaitedFor } from './focus'
import { Pick } from './Pick'
import { TypedInput } from './TypedInput'

const said = vi.fn()

beforeEach(() => {
  sessionStorage.clear()
  Element.prototype.scrollIntoView = () => undefined
})

afterEach(() => {
  cleanup()
  said.mockClear()
})

const field = (id: string, typed = '') => (
  <TypedInput id={id} typed={typed} aside="mm" wrong={false} onCommit={(text) => said(id, text)} />
)

const input = (id: string) => {
  const found = document.getElementById(id)
  if (!(found instanceof HTMLInputElement)) throw new Error(`no ${id}`)
  return found
}

describe('a field that is typed into', () => {
  it('says what was typed on Enter, once, and goes on to the next', async () => {
    render(
      <section>
        {field('field-part-wall')}
        {field('field-part-mass')}
      </section>,
    )
    await userEvent.type(input('field-part-wall'), '12{Enter}')
    expect(said.mock.calls).toEqual([['field-part-wall', '12']])
    expect(document.activeElement?.id).toBe('field-part-mass')
  })

  it('goes on in the order of the page, and after the last of its part to what follows', async () => {
    const follows = vi.fn()
    const page = (first: boolean) => (
      <section>
        {first && field('field-part-length')}
        <TypedInput
          id="field-part-wall"
          typed=""
          aside="mm"
          wrong={false}
          onCommit={() => undefined}
          follows={follows}
        />
      </section>
    )
    const shown = render(page(false))
    // What comes later may stand before.
    shown.rerender(page(true))
    await userEvent.type(input('field-part-length'), '12{Enter}')
    expect(document.activeElement?.id).toBe('field-part-wall')
    await userEvent.keyboard('9{Enter}')
    expect(follows).toHaveBeenCalledTimes(1)
  })

  it('that is not there yet has the keys as soon as it is', () => {
    focusField('part.wall')
    expect(isWaitedFor()).toBe(true)
    render(<section>{field('field-part-wall')}</section>)
    expect(document.activeElement?.id).toBe('field-part-wall')
    expect([isWaitedFor(), isInAField()]).toEqual([false, true])
  })

  it('says it when it is left, and nothing where nothing was typed', async () => {
    render(<section>{field('field-part-wall', '9')}</section>)
    await userEvent.click(input('field-part-wall'))
    await userEvent.tab()
    expect(said).not.toHaveBeenCalled()
    await userEvent.type(input('field-part-wall'), '5')
    await userEvent.tab()
    expect(said.mock.calls).toEqual([['field-part-wall', '95']])
  })

  it('drops what was typed on Escape', async () => {
    render(<section>{field('field-part-wall', '9')}</section>)
    await userEvent.type(input('field-part-wall'), '5{Escape}')
    expect(input('field-part-wall').value).toBe('9')
  })

  it('presses no button that its Enter leads to', async () => {
    render(
      <section>
        <TypedInput
          id="field-part-wall"
          typed=""
          aside="mm"
          wrong={false}
          onCommit={() => document.getElementById('after')?.focus()}
        />
        <button type="button" id="after" onClick={() => said('pressed')}>
          Lay bead 3
        </button>
      </section>,
    )
    await userEvent.type(input('field-part-wall'), '12{Enter}')
    expect(said).not.toHaveBeenCalled()
  })
})

const ANSWERS = [
  { id: 'none', label: 'None of these' },
  { id: 'lifting', label: 'Lifting gear' },
]

const question = (chosen = '') => (
  <Choice
    id="field-part-safety_class"
    label="Could it hurt somebody?"
    choices={ANSWERS}
    chosen={chosen}
    onChoose={said}
  />
)

describe('a question', () => {
  it('that is led to has the keys before its answers, and Enter says none of them', async () => {
    render(question())
    focusField('part.safety_class')
    expect(document.activeElement?.matches('[data-question]')).toBe(true)
    await userEvent.keyboard('{Enter}{Enter} {Enter}')
    expect(said).not.toHaveBeenCalled()
  })

  it('is answered by a press on an answer: the space bar, or a finger', async () => {
    render(question())
    focusField('part.safety_class')
    await userEvent.tab()
    expect(document.activeElement?.textContent).toBe('None of these')
    await userEvent.keyboard(' ')
    await userEvent.click(screen.getByText('Lifting gear'))
    expect(said.mock.calls).toEqual([['none'], ['lifting']])
  })

  it('that opens a list is led to before it as well', async () => {
    render(
      <Pick
        id="field-part-family"
        label="What sort of part?"
        choices={ANSWERS}
        chosen=""
        onChoose={said}
        placeholder="choose"
      />,
    )
    focusField('part.family')
    await userEvent.keyboard('{Enter}{Enter}')
    expect(document.querySelector('[data-list]')).toBeNull()
    expect(said).not.toHaveBeenCalled()
  })

  it.each([
    ['Enter opens its list and chooses nothing of it', '{Enter}{Enter}', []],
    ['what is gone to in it is chosen', '{Enter}{ArrowDown}{Enter}', [['none']]],
    ['an arrow that opens it is in it', '{ArrowDown}{Enter}', [['none']]],
  ])('with a list: %s', async (_, keys, expected) => {
    render(
      <Pick
        id="field-part-family"
        label="What sort of part?"
        choices={ANSWERS}
        chosen=""
        onChoose={said}
        placeholder="choose"
      />,
    )
    screen.getByRole('button').focus()
    await userEvent.keyboard(keys)
    expect(said.mock.calls).toEqual(expected)
  })

  it('after a field is not gone on to by Enter', async () => {
    render(
      <section>
        {field('field-part-wall')}
        {question()}
      </section>,
    )
    input('field-part-wall').focus()
    goOn(input('field-part-wall'))
    await userEvent.keyboard('{Enter}')
    expect(said).not.toHaveBeenCalled()
  })
})
