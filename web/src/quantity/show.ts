import type { Figure, Schemas, UnitSystem } from '../api/client'

/** The two systems of units, as they are chosen. */
export const SYSTEMS: readonly { id: UnitSystem; label: string }[] = [
  { id: 'metric', label: 'mm, °C, kg' },
  { id: 'imperial', label: 'in, °F, lb' },
]

/** A figure's text in the units of this device, as the server formatted it. */
export const inUnits = (figure: Pick<Figure, 'metric' | 'imperial'>, units: UnitSystem): Schemas['Shown'] =>
  units === 'imperial' ? figure.imperial : figure.metric

/** degC for an axis, in the shop's unit: `[300, '°C']`. */
export function temperature(celsius: number, units: UnitSystem): [number: string, unit: string] {
  return units === 'imperial'
    ? [Math.round(celsius * 1.8 + 32).toString(), '°F']
    : [Math.round(celsius).toString(), '°C']
}

/** The clock on the shop's wall: its zone, and whether it says 14:30 or 2:30 pm. */
export type Wall = Pick<Schemas['Shop'], 'time_zone' | 'twelve_hours'>

const FORMATS = new Map<string, Intl.DateTimeFormat>()

/** A format of the shop's clock: made once, it is used each second. */
function formatOf(zone: string, format: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${zone} ${JSON.stringify(format)}`
  const known = FORMATS.get(key)
  if (known !== undefined) return known
  const made = new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...format })
  FORMATS.set(key, made)
  return made
}

const DAY_MS = 86_400_000
/** Days on either side within which a weekday says which. */
const NEAR_DAYS = 6

/** The time of day on the wall: `06:40`, or `6:40 am`. */
const timeOfDay = (ms: number, { time_zone, twelve_hours }: Wall): string =>
  twelve_hours
    ? formatOf(time_zone, { hour: 'numeric', minute: '2-digit', hourCycle: 'h12' }).format(ms)
    : formatOf(time_zone, { hour: '2-digit', minute: '2-digit' }).format(ms)

/** A clock time on the shop's wall: `06:40`, with the weekday when it is not today, with the date when it is far. */
export function clock(ms: number, wall: Wall, now: number): string {
  const at = (format: Intl.DateTimeFormatOptions, time: number) =>
    formatOf(wall.time_zone, format).format(time)
  const time = timeOfDay(ms, wall)
  const day = (value: number) => at({ year: 'numeric', month: '2-digit', day: '2-digit' }, value)
  if (day(ms) === day(now)) return time
  if (Math.abs(ms - now) < NEAR_DAYS * DAY_MS) return `${at({ weekday: 'short' }, ms)} ${time}`
  const year =
    at({ year: 'numeric' }, ms) === at({ year: 'numeric' }, now) ? {} : { year: 'numeric' as const }
  return `${at({ day: 'numeric', month: 'short', ...year }, ms)}, ${time}`
}

/** A mark on an axis: the time of day, a whole hour of a clock of twelve without its minutes. */
export const hourMark = (ms: number, wall: Wall): string => timeOfDay(ms, wall).replace(/:00 (?=[ap]m)/, ' ')

/** Hours gone by since the last whole hour of the shop's clock: not every zone stands whole hours off. */
export function hoursPastTheHour(ms: number, { time_zone }: Wall): number {
  const minute = formatOf(time_zone, { minute: 'numeric' }).format(ms)
  return (Number(minute) * 60_000 + (ms % 60_000)) / 3_600_000
}

const FIVE_MIN_MS = 300_000

/** When something may be done that is only foreseen: the next five minutes of the clock, never too early. */
export const foreseen = (ms: number, wall: Wall, now: number): string =>
  clock(Math.ceil(ms / FIVE_MIN_MS) * FIVE_MIN_MS, wall, now)

/** A day and time for the record, in the shop's zone: `16 Oct 2026, 02:33`. */
export const day = (ms: number, wall: Wall): string =>
  `${formatOf(wall.time_zone, { dateStyle: 'medium' }).format(ms)}, ${timeOfDay(ms, wall)}`

/** A month for a label: `Oct 2026`. */
export const month = (ms: number, wall: Wall): string =>
  formatOf(wall.time_zone, { month: 'short', year: 'numeric' }).format(ms)

/** Hours and minutes on an axis: `3 h 05`, `42 min`. */
export function minutes(value: number): string {
  const total = Math.max(0, Math.round(value))
  return total < 60 ? `${total} min` : `${Math.floor(total / 60)} h ${String(total % 60).padStart(2, '0')}`
}

const HOUR_MIN = 60
const DAY_MIN = 24 * HOUR_MIN
const WEEK_MIN = 7 * DAY_MIN

/** "now", "4 h", "2 d": how far a mark of a scale lies ahead. */
export function ahead(minutes: number): string {
  if (minutes === 0) return 'now'
  if (minutes % WEEK_MIN === 0) return `${minutes / WEEK_MIN} wk`
  return minutes % DAY_MIN === 0 ? `${minutes / DAY_MIN} d` : `${minutes / HOUR_MIN} h`
}

const tenth = (value: number): number => Math.round(value * 10) / 10

/** Marks of an axis that ends there: hours where it holds two of them, to a tenth. */
export const tickOf =
  (until: number) =>
  (minutes: number): string =>
    until >= 2 * HOUR_MIN ? `${tenth(minutes / HOUR_MIN)} h` : `${tenth(minutes)} min`

/** A day of this year for a list: `16 Oct`. */
export const dayOfYear = (ms: number, time_zone: string): string =>
  formatOf(time_zone, { day: 'numeric', month: 'short' }).format(ms)
