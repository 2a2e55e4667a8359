import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'
import { queryClient } from './api/queries'
import { App } from './App'
import './styles.css'
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

// Once what is looked at is drawn.
window.addEventListener('load', () => setTimeout(() => void fetchTheRest(), 1_000))
