import type { Export } from '../api/client'

/** The content of an exported file. */
export function bytesOf(out: Export): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(atob(out.content), (c) => c.charCodeAt(0))
}

/** Lets the browser save an exported file. */
export function download(out: Export): void {
  const url = URL.createObjectURL(new Blob([bytesOf(out)], { type: out.media }))
  const link = document.createElement('a')
  link.href = url
  link.download = out.name
  link.click()
  URL.revokeObjectURL(url)
}
