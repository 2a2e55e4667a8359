import type { KeyboardEvent, ReactNode } from 'react'

export type Point = [number, number]

export interface PressPictureProps {
  src: string
  /** Of the picture itself, once it is there. */
  size: Point | null
  onSize: (size: Point) => void
  points: readonly Point[]
  /** As many are pressed as are wanted. */
  full: boolean
  /** They are the corners of something. */
  closed: boolean
  onPoints: (points: readonly Point[]) => void
}

/** The lens shows so many times what the picture shows here. */
const LENS = { size: 132, times: 3 } as const

/** A picture on which points are pressed, or moved with the arrows. */
export function PressPicture(props: PressPictureProps): ReactNode {
  const { src, size, onSize, points, full, closed, onPoints } = props
  const last = points.at(-1)
  const nudge = (event: KeyboardEvent) => {
    const step: Readonly<Record<string, Point>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    }
    const by = step[event.key]
    if (event.key === 'Enter' && size !== null && !full) {
      onPoints([...points, last ?? [size[0] / 2, size[1] / 2]])
    } else if (by !== undefined && last !== undefined) {
      const far = event.shiftKey ? 1 : 10
      onPoints([...points.slice(0, -1), [last[0] + by[0] * far, last[1] + by[1] * far]])
    } else return
    event.preventDefault()
  }
  const percent = (value: number, of: 0 | 1) => `${(100 * value) / (size?.[of] ?? 1)}%`
  return (
    <button
      type="button"
      data-own-letters
      data-testid="press-picture"
      aria-label="The picture: press the points on it. Arrows move the last one by 10 points, with Shift by 1."
      className="relative block w-full cursor-crosshair border-[1.5px] border-scribe"
      onKeyDown={nudge}
      onClick={(event) => {
        if (event.detail === 0 || size === null || full) return
        const box = event.currentTarget.getBoundingClientRect()
        const x = ((event.clientX - box.left) / box.width) * size[0]
        const y = ((event.clientY - box.top) / box.height) * size[1]
        onPoints([...points, [x, y]])
      }}
    >
      <img
        src={src}
        alt=""
        className="block w-full"
        onLoad={(event) => onSize([event.currentTarget.naturalWidth, event.currentTarget.naturalHeight])}
      />
      {size !== null && (
        <svg
          viewBox={`0 0 ${size[0]} ${size[1]}`}
          className="absolute inset-0 h-full w-full"
          fill="none"
          aria-hidden
        >
          {points.length > 1 && (
            <path
              d={
                points.map(([x, y], index) => `${index === 0 ? 'M' : 'L'}${x} ${y}`).join('') +
                (full && closed ? 'Z' : '')
              }
              stroke="var(--chalk)"
              strokeWidth="2"
              style={{ vectorEffect: 'non-scaling-stroke' }}
            />
          )}
        </svg>
      )}
      {points.map(([x, y], index) => (
        <span
          key={index}
          aria-hidden
          className="absolute -ml-2 -mt-2 h-4 w-4 rounded-full border-2 border-chalk bg-iron"
          style={{ left: percent(x, 0), top: percent(y, 1) }}
        />
      ))}
      {size !== null && last !== undefined && <Lens src={src} size={size} at={last} />}
    </button>
  )
}

/** What lies under the last point, nearer. */
function Lens({ src, size, at }: { src: string; size: Point; at: Point }): ReactNode {
  return (
    <span
      aria-hidden
      className={`absolute top-1 overflow-hidden border-[1.5px] border-chalk bg-iron ${at[0] > size[0] / 2 ? 'left-1' : 'right-1'}`}
      style={{ width: LENS.size, height: LENS.size }}
    >
      <span
        className="absolute block"
        style={{
          width: size[0],
          height: size[1],
          transformOrigin: `${at[0]}px ${at[1]}px`,
          transform: `translate(${LENS.size / 2 - at[0]}px, ${LENS.size / 2 - at[1]}px) scale(${LENS.times / 2})`,
          backgroundImage: `url(${src})`,
        }}
      />
      <svg width={LENS.size} height={LENS.size} className="absolute inset-0">
        <path d={`M${LENS.size / 2} 0V${LENS.size}M0 ${LENS.size / 2}H${LENS.size}`} stroke="var(--chalk)" />
      </svg>
    </span>
  )
}
