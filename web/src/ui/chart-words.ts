import { placed, widthOf, type Box } from './words'

/** Size of the words of a chart, and of the figures that matter. */
export const WORD = 14
const FIGURE = 28
/** Where the larger one would lie on the line. */
const SMALL_FIGURE = 21

interface Line {
  word: string
  size: number
  /** Baseline from the top of the box. */
  base: number
  dim?: boolean
  bold?: boolean
}

/** One way to write the same, the larger first: a smaller one is laid where that would lie on the line. */
interface Form {
  wanted: Box
  lines: readonly Line[]
}

export interface LaidWord {
  key: string
  box: Box
  lines: readonly Line[]
}

export interface ChartWords {
  /** Those before the last stand left of their post: the next one is near. */
  posts: readonly { key: string; x: number; y: number; figure: string; words: string }[]
  levels: readonly { words: string; x: number; y: number }[]
  now: { x: number; y: number } | null
  /** The planned line: words keep off it where there is room. */
  line: readonly (readonly [x: number, y: number])[]
  frame: Box
  /** What lies on the chart at the top right: no word goes under it. */
  under?: Box | undefined
}

/** So far a word that stands left of its post reaches over it. */
export const BESIDE = 10
const CLEAR = 8
/** A word that is pushed further from its place than this is no longer its word. */
const NEAR = 110

/** The line as small boxes, one after another. */
function along(line: ChartWords['line']): Box[] {
  return line.slice(1).flatMap(([x, y], at) => {
    const [fromX, fromY] = line[at] ?? [x, y]
    const steps = Math.max(1, Math.ceil(Math.max(Math.abs(x - fromX), Math.abs(y - fromY)) / CLEAR))
    return Array.from({ length: steps + 1 }, (_, step) => ({
      x: fromX + ((x - fromX) * step) / steps - CLEAR / 2,
      y: fromY + ((y - fromY) * step) / steps - CLEAR / 2,
      w: CLEAR,
      h: CLEAR,
    }))
  })
}

/**
 * The words of a chart, each near its place, inside the frame and none on another. Where there is no room
 * for all, those of the posts win over those of the levels.
 */
export function layWords({ posts, levels, now, line, frame, under }: ChartWords): LaidWord[] {
  const drawn = along(line)
  const laid: LaidWord[] = []
  const lay = (key: string, wanted: Box, lines: readonly Line[], smaller: readonly Form[] = []) => {
    const words = [...(under === undefined ? [] : [under]), ...laid.map((word) => word.box)]
    for (const form of [{ wanted, lines }, ...smaller]) {
      const box = placed(form.wanted, frame, [...words, ...drawn])
      const near = box !== null && Math.abs(box.x - form.wanted.x) <= NEAR
      if (near) {
        laid.push({ key, box, lines: form.lines })
        return
      }
    }
    const box = placed(wanted, frame, words)
    if (box !== null) laid.push({ key, box, lines })
  }
  for (const [at, post] of posts.entries()) {
    const w = Math.max(widthOf(post.figure, FIGURE, 'figure'), widthOf(post.words, WORD)) + 4
    const left = at < posts.length - 1 ? w - BESIDE : w / 2
    const oneLine = widthOf(`${post.figure} ${post.words}`, WORD) + 12
    lay(
      post.key,
      { x: post.x - left, y: post.y - 62, w, h: 50 },
      [
        { word: post.figure, size: FIGURE, base: 25 },
        { word: post.words, size: WORD, base: 45, dim: true },
      ],
      [
        {
          wanted: { x: post.x - left, y: post.y - 48, w, h: 36 },
          lines: [
            { word: post.figure, size: SMALL_FIGURE, base: 17 },
            { word: post.words, size: WORD, base: 33, dim: true },
          ],
        },
        {
          wanted: { x: post.x - oneLine + BESIDE, y: post.y - 30, w: oneLine, h: 17 },
          lines: [{ word: `${post.figure} ${post.words}`, size: WORD, base: 13, bold: true }],
        },
      ],
    )
  }
  if (now !== null) {
    const w = widthOf('now', WORD) + 4
    lay('now', { x: now.x, y: now.y - 13, w, h: 17 }, [{ word: 'now', size: WORD, base: 13, bold: true }])
  }
  for (const level of levels) {
    const w = widthOf(level.words, WORD) + 2
    lay(level.words, { x: level.x - w, y: level.y - 13, w, h: 17 }, [
      { word: level.words, size: WORD, base: 13 },
    ])
  }
  return laid
}
