import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { turnedOut } from './api/client'
import { queryClient } from './api/queries'
import { forgetEverything } from './api/queue/forget'
import { askAgain, askOf, askWhatMayDiffer } from './api/ask-again'
import { lookForIt } from './api/look-for-it'
import { reach } from './api/reach'
import { App } from './App'
import './styles.css'
import { letNothingFallThrough } from './ui/double-press'
import { holdIsOnePress } from './ui/held-keys'
import { takeOver } from './sw/take-over'
import { fetchTheRest } from './ui/later'

const root = document.getElementById('root')
if (root === null) throw new Error('the page has no root')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <BrowserRouter>
        <App />
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
)

holdIsOnePress()
letNothingFallThrough()

// This device was turned out: what it kept goes, and it asks who is there.
turnedOut.addEventListener('out', () => {
  void forgetEverything().then((forgotten) => {
    if (forgotten) window.location.reload()
  })
})

// The server is back: nothing that was seen before stands for what is.
let lost = false
reach.subscribe(() => {
  const found = lost && !reach.now().lost
  lost = reach.now().lost
  if (found) askWhatMayDiffer(queryClient)
})

lookForIt()

// The pages open without the server too, where the browser lets them: not on plain http of another machine.
if (import.meta.env.PROD && 'serviceWorker' in navigator) {
  // What a first page was told before the worker was there it asks for again: only what goes through it is kept.
  if (navigator.serviceWorker.controller === null) {
    navigator.serviceWorker.addEventListener('controllerchange', () => askAgain(queryClient), { once: true })
  }
  // The server was slow, not gone: what was kept stands no longer for what it said.
  navigator.serviceWorker.addEventListener('message', ({ data }) => {
    if (typeof data === 'string' && data.startsWith(LATE)) askOf(queryClient, data.slice(LATE.length))
  })
  window.addEventListener('load', () => {
    // Without it everything works but opening the page while the server is gone: the parts are fetched beforehand.
    takeOver(navigator.serviceWorker).catch(() => setTimeout(() => void fetchTheRest(), 1_000))
  })
}

// Where no worker keeps them every part is fetched once what is looked at is drawn: none is missing when the server is
// gone.
if (!('serviceWorker' in navigator)) {
  window.addEventListener('load', () => setTimeout(() => void fetchTheRest(), 1_000))
}
