/** An address without the slashes at its end. */
export function withoutSlashesBehind(address: string): string {
  let end = address.length
  while (address[end - 1] === '/') end--
  return address.slice(0, end)
}
