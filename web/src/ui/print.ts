/** What is put on paper: the card unless something else is asked for. */
export type Paper = 'card' | 'strip' | 'record' | 'estimate' | 'label'

/** Prints one of the papers of the job on the page. */
export function print(paper: Paper): void {
  const { dataset } = document.documentElement
  dataset['print'] = paper
  window.addEventListener('afterprint', () => delete dataset['print'], { once: true })
  window.print()
}
