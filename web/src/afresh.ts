import { vi } from 'vitest'

// A file of tests begins with nothing of the one before it: no module that knew a stand-in, no clock, no global.
vi.useRealTimers()
vi.unstubAllGlobals()
vi.resetModules()
