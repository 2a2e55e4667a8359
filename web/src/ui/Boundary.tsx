import { Component, type ReactNode } from 'react'

export interface BoundaryProps {
  /** What could not be drawn, as a sentence begins. */
  what: string
  children: ReactNode
}

interface Failed {
  error: string | null
}

/** What cannot be drawn says so in its place: nothing else is hidden by it. */
export class Boundary extends Component<BoundaryProps, Failed> {
  override state: Failed = { error: null }

  static getDerivedStateFromError(error: unknown): Failed {
    return { error: error instanceof Error ? error.message : String(error) }
  }

  override render(): ReactNode {
    if (this.state.error === null) return this.props.children
    return (
      <section role="alert" className="m-5 border-l-[3px] border-chalk pl-4" data-testid="boundary">
        <h1 className="text-[28px] leading-9">{this.props.what} cannot be drawn</h1>
        <p className="py-1">
          Nothing that was said is lost: it is with the server, or waits here. What went wrong:{' '}
          <span className="formula">{this.state.error}</span>
        </p>
        <div className="flex gap-3 py-2">
          <button
            type="button"
            className="min-h-11 border-[1.5px] border-scribe px-4 font-semibold"
            onClick={() => this.setState({ error: null })}
          >
            Draw it again
          </button>
          <a href="/" className="flex min-h-11 items-center border-[1.5px] border-scribe px-4 font-semibold">
            To the rack
          </a>
        </div>
      </section>
    )
  }
}
