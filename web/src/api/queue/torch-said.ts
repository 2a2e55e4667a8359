import type { Schemas } from '../client'

const DID: Readonly<Record<Schemas['Deed'], string>> = {
  tacked: 'tacked',
  hole_filled: 'stop-hole filled',
  refilled: 'pinhole refilled',
  ground_out: 'ground out hot',
  turned: 'turned',
  out_of_heat: 'out of the heat',
  back_in: 'back in the heat',
  held_at_joint: 'flame held on the joint',
  held_over: 'held warm',
  flow_begun: 'filling begun',
}

/** A bare number with the unit it was typed in; what has one of its own as it is. */
export const withUnit = (typed: string, unit: string): string =>
  /[\d.,]$/.test(typed.trim()) ? `${typed.trim()} ${unit}` : typed.trim()

const degrees = (system: Schemas['UnitSystem'] | undefined): string => (system === 'imperial' ? '°F' : '°C')

/** What was said at the torch, in words, before anything has been worked out from it. */
export function torchSaid(entry: Schemas['TorchEntry']): string {
  switch (entry.kind) {
    case 'reading': {
      const by = entry.gun == null ? '' : ' by gun'
      const what = entry.joint === true ? 'joint' : 'reading'
      return `${what} ${withUnit(entry.typed, degrees(entry.shown_in))}${by}`
    }
    case 'stick': {
      const stick = withUnit(entry.typed, degrees(entry.shown_in))
      return `the ${stick} stick ${entry.melted ? 'melted' : 'did not melt'}`
    }
    case 'aligned':
      return `alignment ${withUnit(entry.typed, entry.shown_in === 'imperial' ? 'in' : 'mm')} off`
    case 'bead':
      if (entry.at?.hole != null) return 'bead done, in the stop-hole'
      return entry.at == null ? 'bead done' : `bead done, place ${entry.at.along} of layer ${entry.at.layer}`
    case 'beads': {
      const layers = [...new Set(entry.at.map(({ layer }) => layer))].sort((a, b) => a - b)
      const which = `${layers.length > 1 ? 'layers' : 'layer'} ${layers.join(', ')}`
      return `${entry.at.length} beads done, ${which}${entry.peened === true ? ', each peened' : ''}`
    }
    case 'pin':
      return `pin ${entry.number} set`
    case 'oven':
      return entry.runs ? 'oven started' : 'oven stopped'
    case 'did':
      return DID[entry.what]
    case 'trouble':
      return entry.seen.replaceAll('_', ' ')
    case 'note':
      return entry.text
    case 'covered':
      return entry.why === undefined || entry.why === '' ? 'covered' : `covered: ${entry.why}`
    case 'unwrapped':
    case 'peened':
    case 'reheated':
      return entry.kind
  }
}
