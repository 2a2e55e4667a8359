import { useState, type ReactNode } from 'react'
import { PictureInput } from '../../job/PictureInput'
import { keepCouponPicture } from './keep-coupon-picture'

interface CouponPictureProps {
  coupon: string
  name: string
  pictured: boolean
}

/** Where a coupon broke: its picture, or the way to take one. */
export function CouponPicture({ coupon, name, pictured }: CouponPictureProps): ReactNode {
  const [taken, setTaken] = useState(0)
  const [failed, setFailed] = useState('')
  const at = `/api/ledger/coupons/${coupon}/picture`
  const keep = async (file: File | undefined) => {
    if (file === undefined) return
    const why = await keepCouponPicture(coupon, file)
    setFailed(why)
    if (why === '') setTaken((times) => times + 1)
  }
  return (
    <span className="flex flex-wrap items-center gap-2">
      {(pictured || taken > 0) && (
        <a href={at} target="_blank" rel="noreferrer" aria-label={`Where ${name} broke, the picture`}>
          <img
            src={`${at}/small?${taken}`}
            alt=""
            className="block h-[62px] w-[82px] border-[1.5px] border-scribe object-cover"
          />
        </a>
      )}
      <PictureInput
        label={`where ${name} broke`}
        text={pictured || taken > 0 ? 'Another picture' : 'A picture'}
        inLine
        onFiles={([file]) => void keep(file)}
      />
      {failed !== '' && <span role="alert">{failed}</span>}
    </span>
  )
}
