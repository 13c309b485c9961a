/**
 * Rows as RFC 4180 writes them. What begins as a formula does in a spreadsheet is led by an apostrophe, so that no name that somebody
 * gave to a program is carried out (OWASP, CSV injection).
 */
export const csv = (rows: readonly (readonly (string | number)[])[]): string =>
  rows.map(row => `${row.map(field).join(',')}\r\n`).join('')

function field(value: string | number): string {
  if (typeof value === 'number') return String(value)
  const text = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
}
