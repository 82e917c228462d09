/** What sends a file as it is; the contract's types know a binary body as a text. */
export function fileBody(file: Blob, type = 'application/octet-stream') {
  return {
    headers: { 'Content-Type': type },
    body: file as unknown as string,
    bodySerializer: (body: unknown) => body as Blob,
  }
}
