import type { ReactNode } from 'react'
import type { Problem, UnitSystem } from '../api/client'
import type { FieldView } from '../api/fields'
import { Choice } from './Choice'
import { FieldFrame, describedBy, labelId } from './FieldFrame'
import { fieldId } from './focus'
import { Marks } from './Marks'
import { Pick } from './Pick'
import { PickDay } from './PickDay'
import { Tiles } from './Tiles'
import { TypedInput } from './TypedInput'
import { TypedProse } from './TypedProse'

export interface FieldInputProps {
  field: FieldView
  units: UnitSystem
  /** What was typed and not taken, or not sent yet; the stored text otherwise. */
  typed: string
  problem: Problem | undefined
  waiting?: boolean
  label?: string
  placeholder?: string | undefined
  /** As a list that opens even where the choices would fit side by side. */
  folded?: boolean
  /** Every choice in sight, in so many columns. */
  columns?: 2 | 3
  onSay: (typed: string) => void
  onStart?: () => void
}

const SIDE_BY_SIDE = 3

/** A field of any kind, made from what the server says of it. */
export function FieldInput(props: FieldInputProps): ReactNode {
  const { field, units, typed, problem, waiting = false, onSay } = props
  const id = fieldId(field.key)
  const label = props.label ?? field.label
  const described = describedBy(id, problem)
  const typedInput = (
    <TypedInput
      id={id}
      typed={typed}
      aside={aside(field, units, typed)}
      wrong={problem !== undefined}
      describedBy={described}
      placeholder={props.placeholder}
      keys={field.keys}
      onCommit={onSay}
      {...(props.onStart === undefined ? {} : { onStart: props.onStart })}
    />
  )
  const isChosen = field.asks_for === 'one' || field.asks_for === 'yes_no'
  const inSight = field.choices.length <= SIDE_BY_SIDE && !props.folded
  const group = field.asks_for === 'many' || (isChosen && (props.columns !== undefined || inSight))
  const body = () => {
    switch (field.asks_for) {
      case 'one':
      case 'yes_no':
        if (props.columns !== undefined) {
          return (
            <Tiles
              id={id}
              label={label}
              labelledBy={labelId(id)}
              choices={field.choices}
              chosen={typed}
              onChoose={onSay}
              describedBy={described}
              columns={props.columns}
            />
          )
        }
        return inSight ? (
          <Choice
            id={id}
            label={label}
            labelledBy={labelId(id)}
            choices={field.choices}
            chosen={typed}
            onChoose={onSay}
            describedBy={described}
          />
        ) : (
          <Pick
            id={id}
            label={label}
            choices={field.choices}
            chosen={typed}
            onChoose={onSay}
            describedBy={described}
            placeholder={
              props.placeholder === undefined || props.placeholder === '' ? 'choose' : props.placeholder
            }
          />
        )
      case 'prose':
        return (
          <TypedProse
            id={id}
            typed={typed}
            describedBy={described}
            placeholder={props.placeholder}
            onCommit={onSay}
          />
        )
      case 'many':
        return (
          <Marks
            id={id}
            label={label}
            labelledBy={labelId(id)}
            choices={field.choices}
            chosen={typed.split(',').filter((choice) => choice !== '')}
            onChoose={(ids) => onSay(ids.join(','))}
            describedBy={described}
          />
        )
      case 'text':
      case 'length':
      case 'mass':
      case 'temperature':
      case 'duration':
      case 'days':
      case 'pressure':
      case 'number':
        return typedInput
      case 'date':
        return (
          <span className="flex flex-wrap items-stretch gap-2">
            <span className="min-w-[150px] grow">{typedInput}</span>
            <PickDay label={label} onPick={onSay} />
          </span>
        )
    }
  }
  return (
    <FieldFrame id={id} label={label} problem={problem} waiting={waiting} group={group}>
      {body()}
    </FieldFrame>
  )
}

/** The unit, or how the text was understood where that says more. */
function aside(field: FieldView, units: UnitSystem, typed: string): string {
  const unit = units === 'imperial' ? field.unit_imperial : field.unit_metric
  const { shown } = field
  if (shown == null || typed !== field.typed) return unit
  const plain = (text: string) => text.replace(/[\s°]/g, '').toLowerCase()
  if (plain(typed) === plain(shown.number)) return shown.unit
  return plain(typed) === plain(shown.number + shown.unit) ? '' : `${shown.number} ${shown.unit}`
}
