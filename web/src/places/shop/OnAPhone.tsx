import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { addressQuery } from '../../api/queries'

/** Where the phones of the shop find the server, and what they have of it there. */
export function OnAPhone(): ReactNode {
  const { data: address } = useQuery(addressQuery())
  if (address === undefined) return null
  const { pages, trust, qr, by_others, tls, fingerprint } = address
  return (
    <section aria-label="On a phone" className="mt-3 flex flex-col gap-2" data-testid="on-a-phone">
      <h2 className="text-[24px]">On a phone</h2>
      {!by_others && (
        <p className="text-ash">
          Only this machine reaches the server. Started with <code>--address 0.0.0.0</code>, phones in the
          shop&apos;s network reach it too.
        </p>
      )}
      {by_others && qr !== '' && (
        <img
          src={`data:image/svg+xml,${encodeURIComponent(qr)}`}
          alt={`A code for the camera: ${trust[0] ?? pages[0] ?? ''}`}
          className="w-[200px]"
        />
      )}
      {by_others && tls && (
        <p>
          Each device once: load the certificate of this shop from {trust.join(' or ')}. Then open{' '}
          {pages.join(' or ')}.
        </p>
      )}
      {tls && fingerprint !== '' && (
        <p className="text-ash">
          The right certificate has this SHA-256 fingerprint:{' '}
          <span className="formula [overflow-wrap:anywhere]">{fingerprint}</span>
        </p>
      )}
      {by_others && !tls && (
        <>
          <p>
            Read the code with its camera, or open{' '}
            <b className="[overflow-wrap:anywhere]">{pages.join(' or ')}</b>.
          </p>
          <p className="text-ash">
            Plain http: all of it works there while the page is open, also without the server. Only opening
            the page needs the server, and who listens on the network can read along. Started with{' '}
            <code>--tls</code>, neither is so.
          </p>
        </>
      )}
    </section>
  )
}
