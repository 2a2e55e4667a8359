/** Seconds on a face of a clock: `4:10`, `0:07`, `1:02:05`; nothing is under `0:00`. */
export function clockFace(seconds: number): string {
  const left = Math.max(0, Math.ceil(seconds - 1e-6))
  const two = (value: number) => String(value).padStart(2, '0')
  const [hours, minutes] = [Math.floor(left / 3600), Math.floor(left / 60) % 60]
  return hours > 0 ? `${hours}:${two(minutes)}:${two(left % 60)}` : `${minutes}:${two(left % 60)}`
}
