import type { Schemas } from '../../api/client'

/** Sends a picture of a coupon; gives why it is not kept, nothing where it is. */
export async function keepCouponPicture(coupon: string, file: Blob): Promise<string> {
  try {
    const answer = await fetch(`/api/ledger/coupons/${coupon}/picture`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: file,
    })
    if (answer.ok) return ''
    const { problems } = (await answer.json()) as Schemas['ProblemsBody']
    return problems[0]?.message ?? 'The picture was not kept.'
  } catch {
    return 'The server is not reached: take the picture again.'
  }
}
