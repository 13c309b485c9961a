/** Whether a text is the address of something on the web. */
export function isWebAddress(text: string): boolean {
  return /^https?:\/\/[^\s/?#]/i.test(text) && !/\s/.test(text) && URL.canParse(text)
}
