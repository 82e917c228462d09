import type { Export } from '../api/client'

/** The content of an exported file. */
export function bytesOf(out: Export): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(atob(out.content), (c) => c.charCodeAt(0))
}

/** Lets the browser save an exported file. */
export function download(out: Export): void {
  saveAs(new Blob([bytesOf(out)], { type: out.media }), out.name)
}

/** Lets the browser save what was made here. */
export function saveAs(content: Blob, name: string): void {
  const url = URL.createObjectURL(content)
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  URL.revokeObjectURL(url)
}
