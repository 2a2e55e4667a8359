import type { ReactNode } from 'react'

/** Line pictures of what a test shows, 60 x 46, drawn for this program. By `test.outcome`. */
export const PICTURES: Record<string, ReactNode> = {
  'punch.crumbles_no_rim': (
    <>
      <Ground d="M2 24H19L30 39 41 24H58" />
      <Dots
        at={[
          [18, 19],
          [24, 15],
          [30, 20],
          [36, 14],
          [42, 19],
          [14, 14],
          [46, 13],
          [28, 10],
        ]}
        r={1.5}
      />
    </>
  ),
  'punch.raises_rim': <Ground d="M2 26H15Q20 12 23 26L30 40 37 26Q40 12 45 26H58" />,
  'punch.curls_a_chip': (
    <>
      <Ground d="M2 28H22L30 38 44 28H58" />
      <path d="M23 27C14 24 12 12 21 10S31 18 24 20" />
    </>
  ),
  'punch.skates': (
    <>
      <Ground d="M2 30H58" />
      <path d="M14 12 26 28M20 6 33 26M26 28H33" />
      <path d="M36 27H54M50 23l4 4-4 4" strokeWidth={1.4} />
    </>
  ),
  'drill.powder_and_crumbs': (
    <>
      <Ground d="M2 38H58" />
      <path d="M8 38Q30 8 52 38" strokeDasharray="1.5 3" />
      <Dots
        at={[
          [16, 34],
          [22, 30],
          [28, 27],
          [34, 31],
          [40, 34],
          [26, 34],
          [32, 35],
          [46, 35],
          [20, 36],
          [38, 28],
          [30, 22],
        ]}
        r={1.4}
      />
    </>
  ),
  'drill.short_curls': (
    <>
      <Ground d="M2 38H58" />
      <path d="M9 36c-4-7 6-11 8-4s-5 6-4 0M24 36c-4-7 6-11 8-4s-5 6-4 0M40 36c-4-7 6-11 8-4s-5 6-4 0M17 25c-4-7 6-11 8-4s-5 6-4 0M34 24c-4-7 6-11 8-4s-5 6-4 0" />
    </>
  ),
  'drill.long_curls': (
    <>
      <Ground d="M2 40H58" />
      <path d="M6 38c-3-9 8-12 9-3s-6 5-2-4 11-9 10 0-6 5-2-4 11-9 10 0-6 5-2-4 11-9 10 0-6 5-2-4 9-8 11-2" />
    </>
  ),
  'drill.will_not_bite': (
    <>
      <Ground d="M2 34H58" />
      <path d="M24 2V22L30 32 36 22V2M24 8 36 14M24 16 36 22" />
      <path d="M14 28 8 24M12 33H5M46 28 52 24M48 33H55" strokeWidth={1.4} />
    </>
  ),
  'file.bites': (
    <>
      <Ground d="M2 36H16L20 32H44L47 36H58" />
      <path d="M8 26 44 10 49 18 13 33Z" />
      <path d="M15 24l4 7M21 21l4 7M27 18.500l4 7M33 16l4 7M39 13l4 7" strokeWidth={1.2} />
      <Dots
        at={[
          [50, 30],
          [54, 33],
          [47, 33],
          [52, 26],
        ]}
        r={1.4}
      />
    </>
  ),
  'file.skates': (
    <>
      <Ground d="M2 38H58" />
      <path d="M8 26 44 10 49 18 13 33Z" />
      <path d="M15 24l4 7M21 21l4 7M27 18.500l4 7M33 16l4 7M39 13l4 7" strokeWidth={1.2} />
      <path d="M14 37.500H52M20 34.500H44M52 12l5-4M53 17h6" strokeWidth={1.2} />
    </>
  ),
  'magnet.strong': (
    <>
      <Ground d="M2 36H58" />
      <path d="M16 36V20a14 14 0 0 1 28 0V36H36V21a6 6 0 0 0-12 0V36Z" />
      <path d="M16 29h8M36 29h8" />
    </>
  ),
  'magnet.weak_or_none': (
    <>
      <Ground d="M2 40H58" />
      <path d="M16 28V14a14 14 0 0 1 28 0V28H36V15a6 6 0 0 0-12 0V28Z" />
      <path d="M16 21h8M36 21h8" />
      <path d="M20 34v1M40 34v1" strokeWidth={2.4} strokeDasharray="2 2" />
    </>
  ),
}

/** A line of metal with hatching under it. */
function Ground({ d }: { d: string }): ReactNode {
  return (
    <>
      <path d={d} />
      <path d="M5 46l5-5M14 46l5-5M23 46l5-5M32 46l5-5M41 46l5-5M50 46l5-5" strokeWidth={1.1} />
    </>
  )
}

function Dots({ at, r }: { at: readonly (readonly [number, number])[]; r: number }): ReactNode {
  return at.map(([x, y]) => (
    <circle key={`${x}-${y}`} cx={x} cy={y} r={r} fill="currentColor" stroke="none" />
  ))
}

/** How to do each test, and what to mind. */
export const HOW: Record<string, string> = {
  punch: 'One sharp blow on clean metal, near an edge that will not show. Eyes.',
  drill: 'Slow, dry, 3 mm deep. A stop-hole does. Look at what comes up.',
  file: 'A sharp file, skin ground off first. A skin or a chill skates on any iron.',
  magnet: 'On bare metal, not on scale or paint.',
}
