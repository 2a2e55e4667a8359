import type { ReactNode } from 'react'
import { Navigate, useParams } from 'react-router'
import { useShop } from '../../job/ShopContext'
import { JobPage } from './JobPage'

/** On a helper's phone everything leads to the one job: its torch, or what is to be held and watched there. */
export function AtTheTorchAlone(): ReactNode {
  const { id, station } = useParams()
  const { helps } = useShop()
  if (id === helps && station === 'torch') return <JobPage />
  return <Navigate replace to={`/jobs/${helps ?? ''}/helper`} />
}
