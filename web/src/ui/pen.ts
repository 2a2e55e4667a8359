/** Where lines of a drawing go: to a tenth of a pixel, which is finer than is seen. Nobody reads these numbers. */

/** A place on a page, as a path wants it. */
export const spot = (x: number, y: number): string => `${x.toFixed(1)} ${y.toFixed(1)}`

/** A polyline through points, as a path. */
export function path(points: readonly (readonly [number, number])[]): string {
  return points.map(([x, y], at) => `${at === 0 ? 'M' : 'L'}${spot(x, y)}`).join('')
}
