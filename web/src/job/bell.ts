/** A sound made by the browser itself; nothing is fetched. */

let context: AudioContext | null = null

const audio = (): AudioContext | null => {
  if (context === null && typeof AudioContext !== 'undefined') context = new AudioContext()
  return context
}

/** A press lets it sound from then on: browsers ask for one first. */
export function unlock(): void {
  const sound = audio()
  if (sound?.state === 'suspended') void sound.resume()
}

/** Whether it can be heard. */
export const heard = (): boolean => audio()?.state === 'running'

/** Rings: three strokes of a bell, and the phone shakes where it can. */
export function ring(): void {
  navigator.vibrate?.([300, 150, 300, 150, 300])
  const sound = audio()
  if (sound === null || sound.state !== 'running') return
  for (const stroke of [0, 0.35, 0.7]) {
    const at = sound.currentTime + stroke
    const tone = sound.createOscillator()
    const loud = sound.createGain()
    tone.type = 'triangle'
    tone.frequency.setValueAtTime(880, at)
    loud.gain.setValueAtTime(0.0001, at)
    loud.gain.exponentialRampToValueAtTime(0.6, at + 0.02)
    loud.gain.exponentialRampToValueAtTime(0.0001, at + 0.3)
    tone.connect(loud).connect(sound.destination)
    tone.start(at)
    tone.stop(at + 0.32)
  }
}
