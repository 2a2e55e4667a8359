/**
 * Has the worker keep the pages, and serve this one too. A page that is on its way here while the worker begins is
 * taken over by nobody: it asks for it, else nothing of what it shows would be kept.
 */
export async function takeOver(workers: ServiceWorkerContainer): Promise<void> {
  await workers.register('/sw.js')
  const { active } = await workers.ready
  if (workers.controller === null) active?.postMessage(CLAIM)
}
