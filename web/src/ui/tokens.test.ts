import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const styles = readFileSync(new URL('../styles.css', import.meta.url), 'utf8')

/** The colours of a theme, by name. */
function tokens(theme: string): Record<string, string> {
  const at = styles.indexOf(`[data-theme='${theme}'] {`)
  const block = styles.slice(at, styles.indexOf('}', at))
  return Object.fromEntries(
    [...block.matchAll(/--([a-z-]+): (#[0-9a-f]{6});/g)].map((found) => [found[1], found[2]]),
  )
}

/** Relative luminance and contrast as WCAG 2.2 has them. */
const luminance = (colour: string): number => {
  const part = (from: number) => {
    const share = Number.parseInt(colour.slice(from, from + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  }
  return 0.2126 * part(1) + 0.7152 * part(3) + 0.0722 * part(5)
}
const contrast = (a: string, b: string): number => {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x)
  return ((light ?? 0) + 0.05) / ((dark ?? 0) + 0.05)
}

describe('contrast', () => {
  it('is worked out as it should be', () => {
    expect(contrast('#ffffff', '#000000')).toBeCloseTo(21, 6)
    // Hand-worked: (0.2159 + 0.05) / 0.05 for middle gray on black
    expect(contrast('#808080', '#000000')).toBeCloseTo(5.32, 2)
  })

  describe.each(['shop', 'daylight'])('of %s', (theme) => {
    const colours = tokens(theme)
    const of = (word: string, ground: string) => contrast(colours[word] ?? '', colours[ground] ?? '')

    it.each(['chalk', 'ash', 'dim'])('%s is read on every ground', (word) => {
      for (const ground of ['iron', 'slab', 'raise']) expect(of(word, ground)).toBeGreaterThanOrEqual(4.5)
    })

    it('edges are seen, and the words on the plate are read', () => {
      expect(of('scribe', 'iron')).toBeGreaterThanOrEqual(3)
      expect(of('accent', 'iron')).toBeGreaterThanOrEqual(3)
      expect(of('on-accent', 'accent')).toBeGreaterThanOrEqual(4.5)
    })
  })
})
