/**
 * What stands behind the # of the address: a token or a code. It never goes to the
 * server with the address, and is taken off it, so that it is not read from the
 * screen or kept in the history.
 */
export function secretOfAddress(): string {
  const secret = decodeURIComponent(location.hash.slice(1))
  if (secret) history.replaceState(history.state, '', location.pathname)
  return secret
}
