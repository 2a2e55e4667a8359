/** Where everything of a heat line goes. Pure: minutes and degC in, pixels out. */

export interface LinePlan {
  cold: boolean
  curve: readonly (readonly [number, number])[]
  beads_from: number
  beads_to: number
  unwrap_at?: number | null
}

export interface LineBox {
  width: number
  /** Left end of the cold steps, and their distance. */
  pad: number
  step: number
  shelf: number
  top: number
  /** Distance of Check and Hand-over, and of Hand-over from the right edge. */
  end: number
  right: number
  /** Pixels for a minute where all lines share one scale; as wide as fits otherwise. */
  perMinute?: number
}

export interface LineLayout {
  /** x of the ten stations, in order. */
  stations: readonly number[]
  heatX: number
  endX: number
  x: (minutes: number) => number
  y: (celsius: number) => number
  /** Where the cooling is cut out, in minutes; nothing where it is whole. */
  cut: { from: number; to: number } | null
  /** Where the names of the stations stand: fanned where the marks are too close for them. */
  labels: readonly number[]
  /** The time at an x of the hot stages. */
  minutesAt: (x: number) => number
}

/** Least distance of two marks whose names stand below them. */
const APART = 46
const CUT_GAP = 14

/**
 * Five cold steps, then the hot stages at one scale, then Check and Hand-over at fixed places.
 * Where Torch and Cooling would crowd, the scale grows and the cooling is cut just before its end,
 * unless that would cut over half of it.
 */
export function layOut(box: LineBox, plan: LinePlan | null, hottest: number, until: number): LineLayout {
  const cold = [0, 1, 2, 3, 4].map((at) => box.pad + at * box.step)
  const heatX = box.pad + 5 * box.step + 8
  const handX = box.width - box.right
  const checkX = handX - box.end
  const endX = checkX - 34
  const room = endX - heatX
  const last = Math.max(until, plan?.unwrap_at ?? 0, plan?.beads_to ?? 0, 1)
  const whole = box.perMinute ?? room / last
  const beads = plan === null || plan.cold ? null : plan
  let scale = Math.min(whole, room / Math.min(last, room / whole))
  let cut: LineLayout['cut'] = null
  if (beads !== null) {
    const needed = Math.max(
      APART / Math.max(beads.beads_from, 1),
      APART / Math.max(beads.beads_to - beads.beads_from, 1),
    )
    if (needed > scale) {
      const tail = 60
      const shown = (room - CUT_GAP - tail) / needed
      const cooling = last - beads.beads_to
      const kept = shown - beads.beads_to + tail / needed
      const lit = until > shown
      if (box.perMinute === undefined && !lit && kept > cooling / 2) {
        scale = needed
        cut = { from: shown, to: last - tail / needed }
      }
    }
  }
  const gap = cut
  const x = (minutes: number): number => {
    if (gap === null || minutes <= gap.from) return heatX + minutes * scale
    if (minutes < gap.to) return heatX + gap.from * scale + CUT_GAP / 2
    return heatX + gap.from * scale + CUT_GAP + (minutes - gap.to) * scale
  }
  const top = hottest > 380 ? 720 : 420
  const y = (celsius: number): number =>
    box.shelf - (box.shelf - box.top) * Math.max(0, (celsius - 20) / (top - 20)) ** 0.65
  const spread = (share: number) => heatX + room * share
  const torchX = beads === null ? spread(0.2) : Math.max(x(beads.beads_from), heatX + 22)
  const coolX = beads === null ? spread(0.4) : Math.max(x(beads.beads_to), torchX + 21)
  const stations = [...cold, heatX, torchX, coolX, checkX, handX]
  // The names stay apart from each other and from Check's.
  const torchLabel = Math.min(Math.max(torchX, heatX + APART), checkX - 2 * APART - 20)
  const coolLabel = Math.min(Math.max(coolX, torchLabel + APART + 10), checkX - APART - 10)
  const labels = [...cold, heatX, torchLabel, coolLabel, checkX, handX]
  return { stations, labels, heatX, endX, x, y, cut, minutesAt: (at) => (at - heatX) / scale }
}
