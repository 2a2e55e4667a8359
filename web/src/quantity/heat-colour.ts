/** Temperature to colour: what iron looks like. Lines and beads only, never text. */
interface Stop {
  celsius: number
  shop: string
  daylight: string
}

export const HEAT_STOPS: readonly Stop[] = [
  { celsius: 20, shop: '#8E958E', daylight: '#6E746F' },
  { celsius: 180, shop: '#A8A692', daylight: '#77745F' },
  { celsius: 215, shop: '#D9C47C', daylight: '#8A7220' },
  { celsius: 240, shop: '#D3A648', daylight: '#8C5F14' },
  { celsius: 260, shop: '#BE7F45', daylight: '#8A4B1E' },
  { celsius: 282, shop: '#A86BA6', daylight: '#74397A' },
  { celsius: 302, shop: '#5F86D6', daylight: '#2B52A8' },
  { celsius: 330, shop: '#7FA6C4', daylight: '#4A7391' },
  { celsius: 380, shop: '#8D979B', daylight: '#626B6F' },
  { celsius: 480, shop: '#8B8380', daylight: '#6A625F' },
  { celsius: 510, shop: '#A0564A', daylight: '#6E3429' },
  { celsius: 600, shop: '#B5553F', daylight: '#84331F' },
  { celsius: 700, shop: '#C26138', daylight: '#96431A' },
  { celsius: 800, shop: '#D57433', daylight: '#A25616' },
  { celsius: 900, shop: '#E8903C', daylight: '#A5640F' },
  { celsius: 1000, shop: '#F6B45C', daylight: '#9C6E0A' },
]

/** From here up iron gives light of its own. */
export const GLOWS_C = 495

export type Theme = 'shop' | 'daylight'

const channels = (hex: string): number[] => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16))

/** The colour of iron at a temperature, blended in sRGB between the stops. */
export function heatColour(celsius: number, theme: Theme): string {
  const above = HEAT_STOPS.findIndex((stop) => stop.celsius >= celsius)
  const high = HEAT_STOPS[above === -1 ? HEAT_STOPS.length - 1 : above]
  const low = HEAT_STOPS[Math.max(0, (above === -1 ? HEAT_STOPS.length : above) - 1)]
  if (high === undefined || low === undefined) return 'currentColor'
  const span = high.celsius - low.celsius
  const part = span === 0 ? 0 : Math.min(1, Math.max(0, (celsius - low.celsius) / span))
  const from = channels(low[theme])
  const to = channels(high[theme])
  const mixed = from.map((value, at) => Math.round(value + ((to[at] ?? value) - value) * part))
  return `rgb(${mixed.join(' ')})`
}
